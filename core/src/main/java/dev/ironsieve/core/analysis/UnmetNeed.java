package dev.ironsieve.core.analysis;

import dev.ironsieve.core.analysis.Certificate.Unmet;
import dev.ironsieve.core.cover.Budget;
import dev.ironsieve.core.cover.CoverSearch;
import dev.ironsieve.core.cover.CoverSearch.Outcome;
import dev.ironsieve.core.model.ApplicationFact;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Names;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.ruleindex.RuleIndex;
import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.space.Box;
import dev.ironsieve.core.space.Space;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;

/**
 * Unmet need: a rule with an application criterion allows a source an application that needs
 * another one, and no rule allows that source the needed one on a usual port at one of its hosts. A
 * source is a source endpoint, a person and a device.
 *
 * <p>Each round looks for a source that the rule lets through and that lies in no box of sources
 * known to be served. Either its need is unmet, or some rule lets one of its connections with the
 * needed application through; that rule then serves a whole box of sources, which is added. Each
 * round settles at least one class of sources.
 */
final class UnmetNeed {
  private final Questions questions;
  private final RuleIndex index;
  private final Space space;
  private final int applications; // axis; -1 if there is none
  private final int sites; // axis; -1 if there is none
  private final int[] who; // the axes of a source
  private final Map<String, ApplicationFact> facts = new HashMap<>();
  private final Map<String, Place> places = new HashMap<>(); // by application
  private final List<ApplicationFact> needy = new ArrayList<>();

  UnmetNeed(Questions questions) {
    this.questions = questions;
    this.index = questions.index;
    this.space = index.space();
    applications = space.axis(Coordinate.APPLICATION);
    sites = space.axis(Coordinate.SITE);
    who =
        IntStream.of(Space.FROM, space.axis(Coordinate.PERSON), space.axis(Coordinate.DEVICE))
            .filter(axis -> axis >= 0)
            .toArray();
    // All looked up here, since the space takes notes of what it is asked, and of() runs in
    // parallel.
    for (ApplicationFact fact : index.resolution().concernedByNeeds()) {
      String key = Names.key(fact.name());
      facts.put(key, fact);
      places.put(
          key,
          new Place(
              space.codes(applications, fact.uses()),
              space.usualServices(fact),
              sites < 0 ? null : space.usualSites(fact)));
      if (!fact.needs().isEmpty()) {
        needy.add(fact);
      }
    }
  }

  /**
   * Where connections of an application are, in codes.
   *
   * @param sites null if there is no such axis
   */
  private record Place(IntSet uses, IntSet services, IntSet sites) {}

  /** The applications with needs that the rule allows. */
  private List<ApplicationFact> allowed(int handle) {
    if (needy.isEmpty()
        || !questions.enabled(handle)
        || questions.verdict(handle) != Verdict.ALLOW
        || index.region(handle).isEmpty()
        || index.rule(handle).term(Coordinate.APPLICATION).isAny()) {
      return List.of();
    }
    IntSet asked = index.match(handle).terms().get(applications - Space.TERMS);
    return needy.stream().filter(fact -> fact.uses().intersects(asked)).toList();
  }

  /** Whether something is asked about a rule at all. */
  boolean asks(int handle) {
    return !allowed(handle).isEmpty();
  }

  /** Every need that is not met. */
  Certificate.NeedsProof of(int handle) {
    List<ApplicationFact> allowed = allowed(handle);
    if (allowed.isEmpty()) {
      return Certificate.NO_NEEDS;
    }
    Budget budget = new Budget(questions.steps);
    Map<String, Unmet> unmet = new LinkedHashMap<>(); // by what is needed
    boolean settled = true;
    for (ApplicationFact fact : allowed) {
      for (String need : fact.needs()) {
        ApplicationFact needed = facts.get(Names.key(need));
        Unmet known = unmet.get(needed.name());
        if (known != null) {
          // The other applications are tried with the same source.
          if (isAllowedTo(handle, known.point(), fact)) {
            unmet.put(needed.name(), known.with(fact.name()));
            continue;
          }
        }
        Search search = new Search(handle, fact, needed, budget);
        switch (search.run()) {
          case UNMET -> {
            if (known == null) {
              unmet.put(needed.name(), search.found);
            } else {
              unmet.put(needed.name(), known.with(fact.name()));
            }
          }
          case MET -> {}
          case OPEN -> settled = false;
        }
      }
    }
    return new Certificate.NeedsProof(List.copyOf(unmet.values()), settled);
  }

  /** Whether the rule also lets the source of this point use the application there. */
  private boolean isAllowedTo(int handle, int[] point, ApplicationFact fact) {
    int[] other = point.clone();
    other[applications] = codes(fact).min();
    return index.first(other) == handle;
  }

  private IntSet codes(ApplicationFact fact) {
    return place(fact).uses;
  }

  private Place place(ApplicationFact fact) {
    return places.get(Names.key(fact.name()));
  }

  private boolean letsThrough(int handle) {
    return questions.verdict(handle).letsThrough();
  }

  /**
   * Whether an edit can have changed what is known about a rule.
   *
   * @param changed a rule that came, or went, by its handle
   * @param fresh whether it came
   * @param above whether it stands, or may have stood, above
   */
  boolean concerns(
      int handle, Certificate.NeedsProof known, int changed, boolean fresh, boolean above) {
    boolean met = known.unmet().isEmpty() && known.settled();
    if (met && (fresh ? letsThrough(changed) : !above && !letsThrough(changed))) {
      return false; // it can only help
    }
    IntSet apart = IntSet.EMPTY;
    for (ApplicationFact fact : allowed(handle)) {
      apart = apart.union(codes(fact));
      for (String need : fact.needs()) {
        apart = apart.union(codes(facts.get(Names.key(need))));
      }
    }
    for (Box box : index.region(handle)) {
      for (Box other : index.region(changed)) {
        if (other.side(applications).intersects(apart) && sameSomebody(box, other)) {
          return true;
        }
      }
    }
    return false;
  }

  private boolean sameSomebody(Box box, Box other) {
    for (int axis : who) {
      if (!box.side(axis).intersects(other.side(axis))) {
        return false;
      }
    }
    return true;
  }

  private enum Answer {
    MET,
    UNMET,
    OPEN
  }

  /**
   * One question: may every source that a rule lets use one application also use the needed one?
   */
  private final class Search {
    private final int handle;
    private final ApplicationFact fact;
    private final ApplicationFact needed;
    private final Budget budget;
    private final List<Box> served = new ArrayList<>();
    private Unmet found;

    Search(int handle, ApplicationFact fact, ApplicationFact needed, Budget budget) {
      this.handle = handle;
      this.fact = fact;
      this.needed = needed;
      this.budget = budget;
    }

    Answer run() {
      List<Box> target = new ArrayList<>();
      for (Box box : index.region(handle)) {
        IntSet uses = box.side(applications).intersect(codes(fact));
        if (!uses.isEmpty()) {
          target.add(box.with(applications, uses));
        }
      }
      while (true) {
        switch (CoverSearch.search(target, this::takes, this::region, budget)) {
          case Outcome.Covered covered -> {
            return Answer.MET;
          }
          case Outcome.Exhausted exhausted -> {
            return Answer.OPEN;
          }
          case Outcome.Uncovered source -> {
            Answer answer = serve(source.point());
            if (answer != Answer.MET) {
              return answer;
            }
          }
        }
      }
    }

    /** A rule above that decides the point, or, behind all handles, a box of people served. */
    private int takes(int[] point) {
      int first = index.first(point);
      if (first != handle) {
        return first;
      }
      for (int i = 0; i < served.size(); i++) {
        if (served.get(i).contains(point)) {
          return index.handles() + i;
        }
      }
      return CoverSearch.Holder.NOBODY;
    }

    private List<Box> region(int number) {
      return number < index.handles()
          ? index.region(number)
          : List.of(served.get(number - index.handles()));
    }

    /** Looks for a connection of a source with the needed application that is let through. */
    private Answer serve(int[] source) {
      Box wanted = wanted(source);
      int[] rules =
          index.overlapping(List.of(wanted), 0, index.size(), UnmetNeed.this::letsThrough);
      IntSet enough = IntSet.EMPTY;
      for (int rule : rules) {
        List<Box> shared = Box.shared(List.of(wanted), index.region(rule));
        switch (questions.coveredBefore(rule, shared, CoverSearch.Picker.FAR_APART, budget)) {
          case Outcome.Uncovered let -> {
            served.add(alike(rule, let.point()));
            return Answer.MET;
          }
          case Outcome.Exhausted exhausted -> {
            return Answer.OPEN;
          }
          case Outcome.Covered covered -> enough = enough.union(covered.rules());
        }
      }
      found = unmet(source, enough, wanted, rules);
      return Answer.UNMET;
    }

    /** All connections of a source with the needed application. */
    private Box wanted(int[] source) {
      IntSet[] sides = new IntSet[space.axes()];
      for (int axis = 0; axis < sides.length; axis++) {
        sides[axis] = space.all(axis);
      }
      for (int axis : who) {
        sides[axis] = space.classOf(axis, source[axis]);
      }
      sides[Space.TO] = space.family(Space.TO, space.family(source[Space.FROM]));
      Place place = place(needed);
      sides[applications] = place.uses;
      sides[Space.SERVICE] = place.services;
      if (sites >= 0) {
        sides[sites] = place.sites;
      }
      return new Box(sides);
    }

    /**
     * A box of sources that the same rule lets through with the same connection.
     *
     * @param point a point that the rule decides
     */
    private Box alike(int rule, int[] point) {
      IntSet[] sides = new IntSet[space.axes()];
      IntSet[] line = new IntSet[space.axes()];
      Box own =
          index.region(rule).stream().filter(box -> box.contains(point)).findFirst().orElseThrow();
      for (int axis = 0; axis < sides.length; axis++) {
        sides[axis] = space.all(axis);
        line[axis] = space.classOf(axis, point[axis]);
      }
      for (int axis : who) {
        sides[axis] = own.side(axis);
        line[axis] = own.side(axis);
      }
      Box all = new Box(line);
      for (int other : index.overlapping(List.of(all), 0, index.position(rule))) {
        for (Box box : index.region(other)) {
          if (box.intersects(all)) {
            leave(sides, box, point);
          }
        }
      }
      return new Box(sides);
    }

    /** Narrows the sides, around the point, to where a box that does not hold it is not. */
    private void leave(IntSet[] sides, Box box, int[] point) {
      int cut = -1;
      for (int axis : who) {
        if (!box.side(axis).intersects(sides[axis])) {
          return;
        }
        if (!box.side(axis).contains(point[axis])) {
          cut = axis;
        }
      }
      sides[cut] = sides[cut].minus(box.side(cut));
    }

    /** Leaves out one cause after the other as long as the rest is enough and the budget lasts. */
    private Unmet unmet(int[] source, IntSet causes, Box wanted, int[] rules) {
      IntSet kept = causes;
      boolean irreducible = true;
      for (int cause : index.latestFirst(causes)) {
        IntSet fewer = kept.minus(IntSet.of(cause));
        switch (above(fewer, wanted, rules)) {
          case Outcome.Covered covered -> kept = fewer;
          case Outcome.Uncovered uncovered -> {}
          case Outcome.Exhausted exhausted -> irreducible = false;
        }
      }
      Minimality minimality =
          !irreducible
              ? Minimality.UNPROVEN
              : kept.size() <= 1 ? Minimality.SMALLEST : Minimality.IRREDUCIBLE;
      return new Unmet(List.of(fact.name()), needed.name(), source, kept.toArray(), minimality);
    }

    /**
     * Whether of what is wanted some causes take all that the rules below them would let through.
     */
    private Outcome above(IntSet causes, Box wanted, int[] rules) {
      for (int rule : rules) {
        int[] above =
            Arrays.stream(causes.toArray())
                .filter(cause -> index.position(cause) < index.position(rule))
                .toArray();
        Outcome outcome =
            CoverSearch.search(
                Box.shared(List.of(wanted), index.region(rule)),
                CoverSearch.candidates(above, index::region),
                budget);
        if (!(outcome instanceof Outcome.Covered)) {
          return outcome;
        }
      }
      return new Outcome.Covered(causes);
    }
  }
}
