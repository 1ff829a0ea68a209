package dev.ironsieve.core.analysis;

import java.util.ArrayList;
import java.util.List;

/**
 * The proof of an answer about one rule, in handles and points of its {@link
 * dev.ironsieve.core.ruleindex.RuleIndex}: enough to tell whether an edit can have changed the
 * answer.
 */
final class Certificate {
  private Certificate() {}

  /** Whether anything still gets to a rule. */
  sealed interface StandingProof {
    /** It decides this point. */
    record Decides(int[] point) implements StandingProof {}

    /**
     * The rules in {@code causes} cover it; {@code decidedBy} decides the point in its place.
     *
     * @param causes handles, ascending, as they are wherever rules are causes
     */
    record Covered(
        boolean shadowed, int[] causes, Minimality minimality, int[] point, int decidedBy)
        implements StandingProof {}

    record Empty() implements StandingProof {}

    record PassedOver() implements StandingProof {}

    record Undecided(String question) implements StandingProof {}
  }

  /** Whether the rules below would say the same of all that a rule decides. */
  sealed interface RedundancyProof {
    /** Without the rule, {@code next} (or the default rule) gives this point another verdict. */
    record Matters(int[] point, int next) implements RedundancyProof {}

    /** {@code causes} would say the same; {@code next} would decide the point. */
    record Redundant(int[] causes, Minimality minimality, int[] point, int next)
        implements RedundancyProof {}

    /** It decides nothing, or nobody knows whether it does. */
    record NotAsked() implements RedundancyProof {}

    record Undecided() implements RedundancyProof {}
  }

  /** Whether an earlier rule with another verdict overlaps in a certain way. */
  sealed interface PairProof {
    /** The earlier rule decides this point, which both match. */
    record Found(int other, int[] point) implements PairProof {}

    record None() implements PairProof {}

    record Undecided() implements PairProof {}
  }

  /**
   * The unmet needs of the applications that a rule allows.
   *
   * @param settled whether these are all
   */
  record NeedsProof(List<Unmet> unmet, boolean settled) {}

  /**
   * A source at this point may use some applications, but no rule lets it use the one they need.
   *
   * @param applications by name
   * @param needed the application that they need
   * @param causes rules whose removal would allow it; none if no rule below would allow it either
   */
  record Unmet(
      List<String> applications, String needed, int[] point, int[] causes, Minimality minimality) {
    Unmet with(String application) {
      List<String> more = new ArrayList<>(applications);
      more.add(application);
      return new Unmet(List.copyOf(more), needed, point, causes, minimality);
    }
  }

  static final NeedsProof NO_NEEDS = new NeedsProof(List.of(), true);
  static final RedundancyProof NOT_ASKED = new RedundancyProof.NotAsked();
  static final PairProof NONE = new PairProof.None();
}
