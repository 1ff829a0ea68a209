package dev.ironsieve.core.analysis;

import dev.ironsieve.core.analysis.CoverSearch.Candidate;
import dev.ironsieve.core.analysis.CoverSearch.Outcome;
import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.space.Box;
import dev.ironsieve.core.space.Match;
import dev.ironsieve.core.space.Resolution;
import dev.ironsieve.core.space.Space;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SplittableRandom;
import java.util.function.Predicate;

/**
 * The rules of one rulebase compiled for questions about what each of them still decides. Built
 * anew for each state of the rules; {@link LiveAnalysis} carries answers from one to the next.
 */
final class Analysis {
  /** Steps for the questions about one rule. */
  static final long STEPS = 400_000;

  private static final int SAMPLES = 128;
  private static final int TRIES = 8;
  private static final int CORNER_CLASSES = 48;

  private final List<Rule> rules;
  private final Map<String, Integer> numbers = new HashMap<>();
  private final Space space;
  private final List<Match> matches;
  private final List<List<Box>> regions = new ArrayList<>();
  private final int[] firstBox; // per rule: how many boxes stand before its own
  private final Incidence incidence;
  private final long steps;

  Analysis(Resolution resolution, List<Rule> rules, long steps) {
    this.rules = rules;
    this.steps = steps;
    matches = rules.stream().map(resolution::match).toList();
    space = new Space(resolution, matches);
    firstBox = new int[rules.size() + 1];
    List<Box> boxes = new ArrayList<>();
    Map<Match, List<Box>> known = new HashMap<>();
    for (int i = 0; i < rules.size(); i++) {
      numbers.put(rules.get(i).id(), i);
      firstBox[i] = boxes.size();
      List<Box> region = known.computeIfAbsent(matches.get(i), space::region);
      regions.add(region);
      if (rules.get(i).enabled()) {
        boxes.addAll(region);
      }
    }
    firstBox[rules.size()] = boxes.size();
    incidence = new Incidence(space, boxes);
  }

  List<Rule> rules() {
    return rules;
  }

  /** The rule's place in the order, from 0, if it is here. */
  Optional<Integer> number(String id) {
    return Optional.ofNullable(numbers.get(id));
  }

  /** Whether both rules are enabled and some connection matches both. */
  boolean meet(int a, int b) {
    return rules.get(a).enabled() && rules.get(b).enabled() && boxesMeet(a, b);
  }

  private boolean boxesMeet(int a, int b) {
    for (Box one : regions.get(a)) {
      for (Box other : regions.get(b)) {
        if (one.intersects(other)) {
          return true;
        }
      }
    }
    return false;
  }

  Standing standing(int rule) {
    if (!rules.get(rule).enabled()) {
      return new Standing.PassedOver();
    }
    List<Box> target = regions.get(rule);
    if (target.isEmpty()) {
      return new Standing.Empty();
    }
    int[] quick = quickWitness(rule);
    if (quick != null) {
      return decides(rule, quick);
    }
    List<Candidate> above = above(rule, target);
    Budget budget = new Budget(steps);
    return switch (CoverSearch.search(target, above, budget)) {
      case Outcome.Uncovered uncovered -> decides(rule, uncovered.point());
      case Outcome.Exhausted exhausted ->
          new Standing.Undecided("whether anything gets to it", steps);
      case Outcome.Covered covered -> covered(rule, above, covered, budget);
    };
  }

  private Standing.Decides decides(int rule, int[] witness) {
    Predicate<int[]> proves =
        point -> matches(rule, point) && !incidence.heldBefore(firstBox[rule], point);
    return new Standing.Decides(space.connection(familiar(witness, proves)), reach(rule));
  }

  private boolean matches(int rule, int[] point) {
    return regions.get(rule).stream().anyMatch(box -> box.contains(point));
  }

  /** The point, moved axis by axis to classes that a reader knows, as long as it still proves. */
  private int[] familiar(int[] point, Predicate<int[]> proves) {
    int[] best = point;
    for (int axis = 0; axis < space.axes(); axis++) {
      for (int c : space.familiarClasses(axis)) {
        int[] moved = best.clone();
        moved[axis] = c;
        if (proves.test(moved)) {
          best = moved;
          break;
        }
      }
    }
    return best;
  }

  private Standing covered(int rule, List<Candidate> above, Outcome.Covered cover, Budget budget) {
    List<Box> target = regions.get(rule);
    Blame.Verdict blame = Blame.of(target, above, cover.rules(), budget);
    if (blame == null) {
      return new Standing.Undecided("which rules together take all of it", steps);
    }
    List<String> causes =
        blame.rules().stream().mapToObj(number -> rules.get(number).id()).toList();
    Budget verdictBudget = new Budget(steps);
    for (Candidate other : blamedFirst(above, blame.rules())) {
      if (rules.get(other.rule()).verdict() == rules.get(rule).verdict()) {
        continue;
      }
      int[] point = decidedInside(other, target, above, verdictBudget);
      if (point != null) {
        int by = other.rule();
        Predicate<int[]> proves =
            p -> matches(rule, p) && matches(by, p) && !incidence.heldBefore(firstBox[by], p);
        Connection witness = space.connection(familiar(point, proves));
        return new Standing.Covered(
            Standing.Kind.SHADOWED, causes, blame.smallest(), witness, rules.get(by).id());
      }
      if (!verdictBudget.take(0)) {
        return new Standing.Undecided("whether the rules above all say the same", steps);
      }
    }
    int[] point = familiar(lowest(target.getFirst()), p -> matches(rule, p));
    String decidedBy =
        above.stream()
            .filter(candidate -> candidate.box().contains(point))
            .findFirst()
            .map(candidate -> rules.get(candidate.rule()).id())
            .orElseThrow();
    return new Standing.Covered(
        Standing.Kind.REDUNDANT_ABOVE,
        causes,
        blame.smallest(),
        space.connection(point),
        decidedBy);
  }

  /** So that the witness is, where there is one, a rule's that is blamed anyway. */
  private static List<Candidate> blamedFirst(List<Candidate> above, BitSet blamed) {
    List<Candidate> out = new ArrayList<>(above);
    out.sort(Comparator.comparing(candidate -> !blamed.get(candidate.rule())));
    return out;
  }

  /** A point of the target that {@code other} decides, or null if there is none (or no budget). */
  private int[] decidedInside(
      Candidate other, List<Box> target, List<Candidate> above, Budget budget) {
    List<Candidate> before = above.stream().filter(c -> c.rule() < other.rule()).toList();
    for (Box box : target) {
      Optional<Box> shared = box.intersection(other.box());
      if (shared.isPresent()
          && CoverSearch.search(List.of(shared.get()), before, budget)
              instanceof Outcome.Uncovered uncovered) {
        return uncovered.point();
      }
    }
    return null;
  }

  /** The boxes of enabled earlier rules that meet the target, in order. */
  private List<Candidate> above(int rule, List<Box> target) {
    List<Candidate> out = new ArrayList<>();
    for (int i = 0; i < rule; i++) {
      if (!rules.get(i).enabled()) {
        continue;
      }
      for (Box box : regions.get(i)) {
        for (Box wanted : target) {
          if (box.intersects(wanted)) {
            out.add(new Candidate(i, box));
            break;
          }
        }
      }
    }
    return out;
  }

  /** A point that the rule decides, found cheaply: a rarely held corner, then some at random. */
  private int[] quickWitness(int rule) {
    SplittableRandom random = random(rule);
    for (Box box : regions.get(rule)) {
      int[] corner = new int[space.axes()];
      for (int axis = 0; axis < corner.length; axis++) {
        corner[axis] = leastHeld(rule, axis, box.side(axis));
      }
      if (!incidence.heldBefore(firstBox[rule], corner)) {
        return corner;
      }
      for (int i = 0; i < TRIES; i++) {
        int[] point = pick(box, random);
        if (!incidence.heldBefore(firstBox[rule], point)) {
          return point;
        }
      }
    }
    return null;
  }

  private int leastHeld(int rule, int axis, IntSet side) {
    long size = side.size();
    long step = Math.max(1, size / CORNER_CLASSES);
    int best = side.min();
    int least = Integer.MAX_VALUE;
    for (long rank = 0; rank < size; rank += step) {
      int c = side.get(rank);
      int weight = incidence.weight(firstBox[rule], axis, c);
      if (weight < least) {
        least = weight;
        best = c;
      }
    }
    return best;
  }

  /**
   * How much of a rule's match, of which something is known to reach it, does so. Exactly 1 is told
   * only if no earlier rule touches the match.
   */
  Reach reach(int rule) {
    List<Box> target = regions.get(rule);
    boolean touched = false;
    for (int i = 0; i < rule && !touched; i++) {
      touched = rules.get(i).enabled() && boxesMeet(i, rule);
    }
    if (!touched) {
      return Reach.ALL;
    }
    double[] upTo = new double[target.size()];
    double total = 0;
    for (int i = 0; i < upTo.length; i++) {
      double points = 1;
      for (int axis = 0; axis < space.axes(); axis++) {
        points *= target.get(i).side(axis).size();
      }
      total += points;
      upTo[i] = total;
    }
    SplittableRandom random = random(rule);
    int reached = 0;
    for (int i = 0; i < SAMPLES; i++) {
      int box = Arrays.binarySearch(upTo, random.nextDouble() * total);
      box = Math.min(box >= 0 ? box : -box - 1, upTo.length - 1);
      if (!incidence.heldBefore(firstBox[rule], pick(target.get(box), random))) {
        reached++;
      }
    }
    return Reach.sampled(reached, SAMPLES);
  }

  /** The same sequence for the same rule, so that a meter does not flicker. */
  private SplittableRandom random(int rule) {
    return new SplittableRandom(rules.get(rule).id().hashCode());
  }

  private static int[] pick(Box box, SplittableRandom random) {
    int[] point = new int[box.axes()];
    for (int axis = 0; axis < point.length; axis++) {
      IntSet side = box.side(axis);
      point[axis] = side.get(random.nextLong(side.size()));
    }
    return point;
  }

  private static int[] lowest(Box box) {
    int[] point = new int[box.axes()];
    for (int axis = 0; axis < point.length; axis++) {
      point[axis] = box.side(axis).min();
    }
    return point;
  }
}
