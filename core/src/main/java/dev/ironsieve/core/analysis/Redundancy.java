package dev.ironsieve.core.analysis;

import dev.ironsieve.core.analysis.Certificate.RedundancyProof;
import dev.ironsieve.core.analysis.Questions.Obstacle;
import dev.ironsieve.core.cover.Budget;
import dev.ironsieve.core.cover.CoverSearch;
import dev.ironsieve.core.cover.CoverSearch.Outcome;
import dev.ironsieve.core.model.DefaultRule;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.ruleindex.OverlapQuery;
import dev.ironsieve.core.ruleindex.RuleIndex;
import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.space.Box;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;

/**
 * Redundant (below): whether everything that a rule decides would get the same verdict without it.
 * It is so unless some rule below with another verdict (or the default rule) would be the first to
 * take a point; so for each of those, the part that it shares with the rule has to be covered by
 * the rules above and the rules between.
 */
final class Redundancy {
  /** Rules below with another verdict that are tried before an exact search. */
  private static final int MOST_RIVALS = 64;

  /** Rules that are taken for likely to keep off the next rival, since they did the last ones. */
  private static final int MOST_LIKELY = 48;

  /** Among so many places below the rule its rivals are looked for first. */
  private static final int PLACES_AT_FIRST = 1024;

  private final Questions questions;
  private final RuleIndex index;

  Redundancy(Questions questions) {
    this.questions = questions;
    this.index = questions.index;
  }

  /** One rule below with another verdict, or the default rule, and who keeps it off. */
  private record Rival(int rule, List<Box> shared, IntSet keptOffBy) {}

  /**
   * @param witness a point that the rule decides
   * @param overlaps the rules that meet the rule
   */
  RedundancyProof of(
      int handle, int[] witness, OverlapQuery overlaps, LeastCoveredPoint leastCovered) {
    int position = index.position(handle);
    Verdict verdict = questions.verdict(handle);
    List<Box> region = index.region(handle);
    int next = index.firstFrom(position + 1, witness);
    if (questions.verdict(next) != verdict) {
      return new RedundancyProof.Matters(witness, next);
    }
    Obstacle obstacle = obstacle(handle);
    Optional<int[]> quick =
        verdict == DefaultRule.verdict(null)
            ? Optional.empty()
            : questions.guess(region, leastCovered, handle, obstacle);
    quick = quick.or(() -> guess(handle, overlaps, obstacle, leastCovered));
    if (quick.isPresent()) {
      return new RedundancyProof.Matters(quick.get(), index.firstFrom(position + 1, quick.get()));
    }
    Rivals rivals = new Rivals(handle, leastCovered);
    rivals.ask(overlaps);
    return rivals.answer == null ? rivals.redundant(witness, next) : rivals.answer;
  }

  /** The rules below with another verdict, asked about one after the other by an exact search. */
  private final class Rivals {
    private final int handle;
    private final LeastCoveredPoint leastCovered;
    private final List<Box> region;
    private final Verdict verdict;
    private final Budget budget = new Budget(questions.steps);
    private final List<Rival> keptOff = new ArrayList<>();
    private IntSet likely = IntSet.EMPTY; // what kept off those before stands before the next too
    private RedundancyProof answer; // null as long as all are kept off
    private boolean irreducible = true; // the causes

    Rivals(int handle, LeastCoveredPoint leastCovered) {
      this.handle = handle;
      this.leastCovered = leastCovered;
      region = index.region(handle);
      verdict = questions.verdict(handle);
    }

    /** Tests all rivals, by position, until the answer is known. */
    void ask(OverlapQuery overlaps) {
      int to = index.position(handle) + 1;
      for (int places = PLACES_AT_FIRST; to < index.size() && answer == null; places *= 4) {
        int from = to;
        to = Math.min(index.size(), from + places);
        int[] some = overlaps.all(from, to, other -> questions.verdict(other) != verdict);
        for (int i = 0; i < some.length && answer == null; i++) {
          ask(some[i]);
        }
      }
      if (answer == null && verdict != questions.verdict(RuleIndex.NONE)) {
        ask(RuleIndex.NONE);
      }
    }

    private void ask(int other) {
      List<Box> shared = other == RuleIndex.NONE ? region : Box.shared(region, index.region(other));
      CoverSearch.Holder holder = point -> keepsOff(other, point);
      switch (CoverSearch.search(shared, likely, holder, leastCovered, index::region, budget)) {
        case Outcome.Uncovered uncovered ->
            answer = new RedundancyProof.Matters(uncovered.point(), other);
        case Outcome.Exhausted exhausted -> answer = new RedundancyProof.Undecided();
        case Outcome.Covered covered -> {
          keptOff.add(new Rival(other, shared, covered.rules()));
          likely = likely.size() > MOST_LIKELY ? covered.rules() : likely.union(covered.rules());
        }
      }
    }

    RedundancyProof redundant(int[] witness, int next) {
      IntSet causes = reduced();
      Minimality minimality =
          causes.size() <= 1 && irreducible
              ? Minimality.SMALLEST
              : irreducible ? Minimality.IRREDUCIBLE : Minimality.UNPROVEN;
      return new RedundancyProof.Redundant(causes.toArray(), minimality, witness, next);
    }

    /**
     * A rule that takes the point before {@code rival} could, when the rule itself is not there.
     */
    private int keepsOff(int rival, int[] point) {
      int first = index.firstWithout(handle, point);
      return first == rival ? CoverSearch.Holder.NOBODY : first;
    }

    /**
     * The rules below with the same verdict that are needed to keep all rivals off: leaves out one
     * after the other, the last first, as long as no rival comes through and the budget lasts.
     */
    private IntSet reduced() {
      IntSet all = IntSet.EMPTY;
      for (Rival rival : keptOff) {
        all = all.union(rival.keptOffBy);
      }
      IntSet kept = IntSet.of(Arrays.stream(all.toArray()).filter(this::isHelper).toArray());
      for (int helper : index.latestFirst(kept)) {
        IntSet fewer = kept.minus(IntSet.of(helper));
        switch (without(helper, fewer)) {
          case Outcome.Covered covered -> kept = fewer;
          case Outcome.Uncovered uncovered -> {}
          case Outcome.Exhausted exhausted -> {
            irreducible = false;
            return kept;
          }
        }
      }
      return kept;
    }

    /** Whether another rule stands below and would say the same. */
    private boolean isHelper(int other) {
      return index.position(other) > index.position(handle) && questions.verdict(other) == verdict;
    }

    /**
     * Whether all rivals are kept off when, of the helpers, only some are there. Those that it was
     * found of are noted with who keeps them off now.
     *
     * @param helper is not there, so that only those are asked that it kept off
     */
    private Outcome without(int helper, IntSet some) {
      for (int i = 0; i < keptOff.size(); i++) {
        Rival rival = keptOff.get(i);
        if (!rival.keptOffBy.contains(helper)) {
          continue;
        }
        Outcome outcome = without(rival, some);
        if (!(outcome instanceof Outcome.Covered covered)) {
          return outcome;
        }
        keptOff.set(i, new Rival(rival.rule, rival.shared, covered.rules()));
      }
      return new Outcome.Covered(some);
    }

    private Outcome without(Rival rival, IntSet some) {
      CoverSearch.Holder holder =
          point -> {
            int holds = index.first(point);
            while (holds == handle
                || holds != RuleIndex.NONE && isHelper(holds) && !some.contains(holds)) {
              if (!budget.take(1)) {
                return CoverSearch.Holder.UNKNOWN;
              }
              holds = index.firstFrom(index.position(holds) + 1, point);
            }
            return holds == rival.rule ? CoverSearch.Holder.NOBODY : holds;
          };
      return CoverSearch.search(rival.shared, holder, leastCovered, index::region, budget);
    }
  }

  /** For points that the rule decides and that would get another verdict without it. */
  private Obstacle obstacle(int handle) {
    int position = index.position(handle);
    Verdict verdict = questions.verdict(handle);
    return point -> {
      int first = index.first(point);
      if (first != handle) {
        return first;
      }
      int next = index.firstFrom(position + 1, point);
      if (questions.verdict(next) != verdict) {
        return Obstacle.NOTHING;
      }
      return next == RuleIndex.NONE ? Obstacle.HOPELESS : next;
    };
  }

  /** Such a point that one of the rules below with another verdict would decide. */
  private Optional<int[]> guess(
      int handle, OverlapQuery overlaps, Obstacle obstacle, LeastCoveredPoint leastCovered) {
    Verdict verdict = questions.verdict(handle);
    List<Box> region = index.region(handle);
    int[] tried = new int[1];
    int[][] found = new int[1][];
    overlaps.some(
        index.position(handle) + 1,
        index.size(),
        rival -> questions.verdict(rival) != verdict,
        rival -> {
          List<Box> shared = Box.shared(region, index.region(rival));
          found[0] =
              questions.guessFromCorners(shared, leastCovered, handle, obstacle).orElse(null);
          return found[0] != null || ++tried[0] == MOST_RIVALS;
        });
    return Optional.ofNullable(found[0]);
  }
}
