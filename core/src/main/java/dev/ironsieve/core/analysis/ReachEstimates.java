package dev.ironsieve.core.analysis;

import dev.ironsieve.core.ruleindex.RuleIndex;
import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.space.Box;
import dev.ironsieve.core.space.Representatives;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.SplittableRandom;
import java.util.stream.IntStream;

/**
 * Estimates for each rule the share of its match that reaches it. Exact at nothing and, where no
 * earlier rule touches the match, at all of it; else from a sample of the values that the rules
 * tell apart on each axis, the same for the same rules, however they came about.
 */
final class ReachEstimates {
  private static final int MOST_SAMPLES = 128;
  private static final int FEWEST_SAMPLES = 16;
  private static final int ALL_SAMPLES = 256_000;

  /**
   * In rulebases of at most so many rules, all reach is sampled again when classes of values
   * change.
   */
  private static final int FEW_RULES = 200;

  private final RuleIndex index;
  private final Certificates certificates;
  private final Map<Integer, Reach> exact = new HashMap<>(); // by handle
  private Map<Integer, Reach> sampled = new HashMap<>(); // by handle

  private int samples; // for each rule

  /** By axis what the rules tell apart; null until something is sampled. */
  private Representatives[] apart;

  ReachEstimates(RuleIndex index, Certificates certificates) {
    this.index = index;
    this.certificates = certificates;
    samples = samples(index.size());
  }

  /** The same answers where the rules are laid out anew. */
  ReachEstimates(ReachEstimates other, CertificateTranslation move, Certificates certificates) {
    this(move.to(), certificates);
    other.exact.forEach((handle, reach) -> exact.put(move.handle(handle), reach));
    other.sampled.forEach((handle, reach) -> sampled.put(move.handle(handle), reach));
  }

  Reach of(int handle) {
    Reach known = exact.getOrDefault(handle, sampled.get(handle));
    if (known == null) {
      known = make(handle);
      keep(handle, known);
    }
    return known;
  }

  /** Works out all that are not known yet, on several threads. */
  void answerAll() {
    int[] handles =
        IntStream.range(0, index.size())
            .map(index::handleAt)
            .filter(handle -> !exact.containsKey(handle) && !sampled.containsKey(handle))
            .toArray();
    if (handles.length == 0) {
      return;
    }
    prepare();
    Reach[] made = Arrays.stream(handles).parallel().mapToObj(this::make).toArray(Reach[]::new);
    for (int i = 0; i < handles.length; i++) {
      keep(handles[i], made[i]);
    }
  }

  private void keep(int handle, Reach reach) {
    (reach.uncertainty() == 0 ? exact : sampled).put(handle, reach);
  }

  private Reach make(int handle) {
    if (!(certificates.standing(handle) instanceof Certificate.StandingProof.Decides)) {
      return Reach.NONE;
    }
    List<Box> region = index.region(handle);
    if (index.overlaps(region).some(0, index.position(handle), o -> true, o -> true)
        == RuleIndex.NONE) {
      return Reach.ALL;
    }
    prepare();
    return sample(handle, region);
  }

  private Reach sample(int handle, List<Box> region) {
    Representatives.Draws[][] draws = new Representatives.Draws[region.size()][apart.length];
    double[] upTo = new double[region.size()];
    double total = 0;
    for (int box = 0; box < upTo.length; box++) {
      double points = 1;
      for (int axis = 0; axis < apart.length; axis++) {
        draws[box][axis] = apart[axis].of(region.get(box).side(axis));
        points *= draws[box][axis].count();
      }
      total += points;
      upTo[box] = total;
    }
    // The same sequence for the same rule, so that a meter does not flicker.
    SplittableRandom random = new SplittableRandom(index.rule(handle).id().hashCode());
    int reached = 0;
    int[] point = new int[apart.length];
    for (int i = 0; i < samples; i++) {
      double at = random.nextDouble() * total;
      int box = 0;
      while (box < upTo.length - 1 && upTo[box] <= at) {
        box++;
      }
      for (int axis = 0; axis < apart.length; axis++) {
        point[axis] = draws[box][axis].drawn().applyAsInt(random.nextLong());
      }
      reached += index.first(point) == handle ? 1 : 0;
    }
    return Reach.sampled(reached, samples);
  }

  private static int samples(int rules) {
    return Math.clamp(ALL_SAMPLES / Math.max(1, rules), FEWEST_SAMPLES, MOST_SAMPLES);
  }

  private void prepare() {
    if (apart == null) {
      apart = new Representatives[index.space().axes()];
      for (int axis = 0; axis < apart.length; axis++) {
        apart[axis] = index.space().representatives(axis, sides(axis));
      }
    }
    for (Representatives ofAxis : apart) {
      ofAxis.prepare();
    }
  }

  private List<IntSet> sides(int axis) {
    List<IntSet> out = new ArrayList<>();
    for (int position = 0; position < index.size(); position++) {
      index.region(index.handleAt(position)).forEach(box -> out.add(box.side(axis)));
    }
    return out;
  }

  /**
   * Updates the cuts of each axis with the rules that were added and removed.
   *
   * @return whether a class was split or merged
   */
  private boolean updateApart(RuleIndex.Change change) {
    boolean others = false;
    for (int axis = 0; axis < apart.length; axis++) {
      for (int handle : change.fresh()) {
        for (Box box : index.region(handle)) {
          others |= apart[axis].add(box.side(axis));
        }
      }
      for (int handle : change.gone().keySet()) {
        for (Box box : index.region(handle)) {
          others |= apart[axis].remove(box.side(axis));
        }
      }
    }
    return others;
  }

  /**
   * Drops the estimates that may differ after an update of the order.
   *
   * @param met handles of rules of whose match more or less may get through
   * @return handles of other rules whose sample is another now; of more than a few rules these are
   *     left out, and sampled when they are asked for
   */
  Set<Integer> update(RuleIndex.Change change, Set<Integer> met) {
    boolean others = samples != samples(index.size());
    samples = samples(index.size());
    others |= apart == null ? !sampled.isEmpty() : updateApart(change);
    for (int handle : met) {
      forget(handle);
    }
    change.gone().keySet().forEach(this::forget);
    Set<Integer> changed = new LinkedHashSet<>();
    if (others) {
      Map<Integer, Reach> before = sampled;
      sampled = new HashMap<>();
      if (areFew(index)) {
        before.forEach(
            (handle, was) -> {
              if (!of(handle).equals(was)) {
                changed.add(handle);
              }
            });
      }
    }
    return changed;
  }

  /** Whether all reach is sampled again when classes of values change. */
  static boolean areFew(RuleIndex index) {
    return index.size() <= FEW_RULES;
  }

  private void forget(int handle) {
    exact.remove(handle);
    sampled.remove(handle);
  }
}
