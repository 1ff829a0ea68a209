package dev.ironsieve.core.analysis;

import dev.ironsieve.core.order.Order;
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
 * How much of each rule's match gets to it. Exact at nothing and, where no earlier rule touches the
 * match, at all of it; else from a sample of the values that the rules tell apart on each axis, the
 * same for the same rules, however they came about.
 */
final class Reaches {
  private static final int MOST_SAMPLES = 128;
  private static final int FEWEST_SAMPLES = 16;
  private static final int ALL_SAMPLES = 256_000;

  /** Of so many rules each is sampled again at once where another value is told apart. */
  private static final int FEW_RULES = 200;

  private final Order order;
  private final Certificates certificates;
  private final Map<Integer, Reach> exact = new HashMap<>(); // by slot
  private Map<Integer, Reach> sampled = new HashMap<>(); // by slot

  private int samples; // for each rule

  /** By axis what the rules tell apart; null until something is sampled. */
  private Representatives[] apart;

  Reaches(Order order, Certificates certificates) {
    this.order = order;
    this.certificates = certificates;
    samples = samples(order.size());
  }

  /** The same answers where the rules are laid out anew. */
  Reaches(Reaches other, Move move, Certificates certificates) {
    this(move.to(), certificates);
    other.exact.forEach((slot, reach) -> exact.put(move.slot(slot), reach));
    other.sampled.forEach((slot, reach) -> sampled.put(move.slot(slot), reach));
  }

  Reach of(int slot) {
    Reach known = exact.getOrDefault(slot, sampled.get(slot));
    if (known == null) {
      known = make(slot);
      keep(slot, known);
    }
    return known;
  }

  /** Works out all that are not known yet, on several threads. */
  void answerAll() {
    int[] slots =
        IntStream.range(0, order.size())
            .map(order::slotAt)
            .filter(slot -> !exact.containsKey(slot) && !sampled.containsKey(slot))
            .toArray();
    if (slots.length == 0) {
      return;
    }
    prepare();
    Reach[] made = Arrays.stream(slots).parallel().mapToObj(this::make).toArray(Reach[]::new);
    for (int i = 0; i < slots.length; i++) {
      keep(slots[i], made[i]);
    }
  }

  private void keep(int slot, Reach reach) {
    (reach.uncertainty() == 0 ? exact : sampled).put(slot, reach);
  }

  private Reach make(int slot) {
    if (!(certificates.standing(slot) instanceof Certificate.Standing.Decides)) {
      return Reach.NONE;
    }
    List<Box> region = order.region(slot);
    if (order.around(region).some(0, order.position(slot), o -> true, o -> true) == Order.NONE) {
      return Reach.ALL;
    }
    prepare();
    return sample(slot, region);
  }

  private Reach sample(int slot, List<Box> region) {
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
    SplittableRandom random = new SplittableRandom(order.rule(slot).id().hashCode());
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
      reached += order.first(point) == slot ? 1 : 0;
    }
    return Reach.sampled(reached, samples);
  }

  private static int samples(int rules) {
    return Math.clamp(ALL_SAMPLES / Math.max(1, rules), FEWEST_SAMPLES, MOST_SAMPLES);
  }

  private void prepare() {
    if (apart == null) {
      apart = new Representatives[order.space().axes()];
      for (int axis = 0; axis < apart.length; axis++) {
        apart[axis] = order.space().representatives(axis, sides(axis));
      }
    }
    for (Representatives ofAxis : apart) {
      ofAxis.prepare();
    }
  }

  private List<IntSet> sides(int axis) {
    List<IntSet> out = new ArrayList<>();
    for (int position = 0; position < order.size(); position++) {
      order.region(order.slotAt(position)).forEach(box -> out.add(box.side(axis)));
    }
    return out;
  }

  /**
   * Takes over what rules that came and that went tell apart.
   *
   * @return whether anything is told apart that was not before, or no longer
   */
  private boolean updateApart(Order.Change change) {
    boolean others = false;
    for (int axis = 0; axis < apart.length; axis++) {
      for (int slot : change.fresh()) {
        for (Box box : order.region(slot)) {
          others |= apart[axis].add(box.side(axis));
        }
      }
      for (int slot : change.gone().keySet()) {
        for (Box box : order.region(slot)) {
          others |= apart[axis].remove(box.side(axis));
        }
      }
    }
    return others;
  }

  /**
   * Leaves out what may be otherwise after an update of the order.
   *
   * @param met slots of rules of whose match more or less may get through
   * @return slots of other rules whose sample is another now; of more than a few rules these are
   *     left out, and sampled when they are asked for
   */
  Set<Integer> update(Order.Change change, Set<Integer> met) {
    boolean others = samples != samples(order.size());
    samples = samples(order.size());
    others |= apart == null ? !sampled.isEmpty() : updateApart(change);
    for (int slot : met) {
      forget(slot);
    }
    change.gone().keySet().forEach(this::forget);
    Set<Integer> changed = new LinkedHashSet<>();
    if (others) {
      Map<Integer, Reach> before = sampled;
      sampled = new HashMap<>();
      if (areFew(order)) {
        before.forEach(
            (slot, was) -> {
              if (!of(slot).equals(was)) {
                changed.add(slot);
              }
            });
      }
    }
    return changed;
  }

  /** Whether all that is told is told again where another value is told apart. */
  static boolean areFew(Order order) {
    return order.size() <= FEW_RULES;
  }

  private void forget(int slot) {
    exact.remove(slot);
    sampled.remove(slot);
  }
}
