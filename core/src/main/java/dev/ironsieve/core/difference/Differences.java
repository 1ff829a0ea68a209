package dev.ironsieve.core.difference;

import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Rulebase;
import dev.ironsieve.core.order.Order;
import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.space.Box;
import dev.ironsieve.core.space.Match;
import dev.ironsieve.core.space.Resolution;
import dev.ironsieve.core.space.Space;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.Deque;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;

/**
 * Works out a difference: takes the regions of the rules that are not the same in both (changed,
 * gone, new, or moved against the rest), and cuts them along the rules that meet them until each
 * piece is decided by one rule before and one after. Pieces that fit together are joined again.
 */
public final class Differences {
  /** Pieces that are looked at before it gives up. */
  public static final long STEPS = 30_000;

  /** Joining looks at pairs of pieces, so it is left out for more than these. */
  private static final int MOST_TO_JOIN = 4000;

  private final Order before;
  private final Order after;
  private final Space space;
  private final Aspect aspect;
  private final Set<Integer> alikeAfter = new HashSet<>(); // the slots after of twins
  private final Map<Integer, Integer> twins =
      new HashMap<>(); // slots before and after, of alike rules
  private long left;

  private Differences(Order before, Order after, Aspect aspect, long steps) {
    this.before = before;
    this.after = after;
    this.space = after.space();
    this.aspect = aspect;
    this.left = steps;
  }

  /** The difference of two rulebases that speak of the same zones, objects and vocabularies. */
  public static Difference between(Rulebase before, Rulebase after, Aspect aspect) {
    return between(before, after, aspect, STEPS);
  }

  /**
   * @param steps how many pieces may be looked at
   * @throws IllegalArgumentException if the zones or the values of the vocabularies are not the
   *     same, since then the connections are not
   */
  public static Difference between(Rulebase before, Rulebase after, Aspect aspect, long steps) {
    if (!before.zones().equals(after.zones()) || !values(before).equals(values(after))) {
      throw new IllegalArgumentException("not the same zones and values of vocabularies");
    }
    Resolution old = new Resolution(before);
    Resolution now = new Resolution(after, old);
    List<Match> others = after.rules().stream().map(now::match).toList();
    Space space = Order.space(old, before.rules(), others);
    Order oldOrder = new Order(old, before.rules(), space);
    Order newOrder = new Order(now, after.rules(), space);
    return new Differences(oldOrder, newOrder, aspect, steps).run();
  }

  private static List<Object> values(Rulebase rulebase) {
    return rulebase.vocabularies().stream()
        .map(vocabulary -> (Object) List.of(vocabulary.coordinate(), vocabulary.values()))
        .toList();
  }

  /** A piece whose deciders are not settled yet, and which rules of either side still meet it. */
  private record Open(Box box, int[] before, int[] after) {}

  private Difference run() {
    List<Difference.Part> found = new ArrayList<>();
    boolean complete = true;
    Deque<Open> open = new ArrayDeque<>();
    List<Box> seen = new ArrayList<>();
    for (Box region : unlike()) {
      // Disjoint from the regions before it.
      List<Box> fresh = List.of(region);
      for (Box other : seen) {
        List<Box> next = new ArrayList<>();
        for (Box piece : fresh) {
          if (piece.intersects(other)) {
            next.addAll(outside(piece, other));
          } else {
            next.add(piece);
          }
        }
        fresh = next;
      }
      seen.add(region);
      for (Box piece : fresh) {
        open.push(new Open(piece, meeting(before, piece), meeting(after, piece)));
      }
    }
    while (!open.isEmpty()) {
      if (left-- <= 0) {
        complete = false;
        break;
      }
      settle(open.pop(), open, found);
    }
    List<Difference.Part> parts = joined(found);
    parts.sort(Comparator.comparingDouble(Difference.Part::share).reversed());
    return new Difference(space, parts.stream().map(this::told).toList(), complete);
  }

  private static int[] meeting(Order order, Box box) {
    return order.meeting(List.of(box), 0, order.size());
  }

  /** The regions of rules that do not stand the same in both. */
  private Set<Box> unlike() {
    // Of rules that are alike: their positions after, in the order that they had before.
    List<Integer> same = new ArrayList<>();
    Map<Integer, Integer> slotOf = new HashMap<>();
    Set<Box> out = new HashSet<>();
    for (int i = 0; i < before.size(); i++) {
      int slot = before.slotAt(i);
      int now = after.slot(before.rule(slot).id());
      if (now != Order.NONE && alike(slot, now)) {
        same.add(after.position(now));
        slotOf.put(after.position(now), slot);
      } else {
        addRegion(before, slot, out);
      }
    }
    Set<Integer> kept = longestRising(same);
    for (int position : same) {
      if (!kept.contains(position)) {
        addRegion(before, slotOf.get(position), out);
      }
    }
    for (int position : kept) {
      twins.put(slotOf.get(position), after.slotAt(position));
      alikeAfter.add(after.slotAt(position));
    }
    for (int i = 0; i < after.size(); i++) {
      if (!kept.contains(i)) {
        addRegion(after, after.slotAt(i), out);
      }
    }
    return out;
  }

  private boolean alike(int slot, int now) {
    Rule was = before.rule(slot);
    Rule is = after.rule(now);
    return was.enabled() == is.enabled()
        && aspect.of(was).equals(aspect.of(is))
        && before.region(slot).equals(after.region(now));
  }

  private static void addRegion(Order order, int slot, Set<Box> out) {
    if (order.rule(slot).enabled()) {
      out.addAll(order.region(slot));
    }
  }

  /** The longest part of a sequence that rises (patience sorting); O(n log n). */
  private static Set<Integer> longestRising(List<Integer> sequence) {
    int[] tops = new int[sequence.size()]; // index of the lowest end of a run of each length
    int[] previous = new int[sequence.size()];
    int length = 0;
    for (int i = 0; i < sequence.size(); i++) {
      int low = 0;
      int high = length;
      while (low < high) {
        int middle = (low + high) >>> 1;
        if (sequence.get(tops[middle]) < sequence.get(i)) {
          low = middle + 1;
        } else {
          high = middle;
        }
      }
      previous[i] = low == 0 ? -1 : tops[low - 1];
      tops[low] = i;
      length = Math.max(length, low + 1);
    }
    Set<Integer> out = new HashSet<>();
    for (int i = length == 0 ? -1 : tops[length - 1]; i >= 0; i = previous[i]) {
      out.add(sequence.get(i));
    }
    return out;
  }

  /** Decides one piece, or cuts it along the first rule that holds only a part of it. */
  private void settle(Open piece, Deque<Open> open, List<Difference.Part> found) {
    Box box = piece.box;
    int[] old = upToTheFirstWhole(before, piece.before, box);
    int[] now = upToTheFirstWhole(after, piece.after, box);
    if (allTheSame(old, now, box)) {
      return;
    }
    if (!mayDiffer(old, now)) {
      return;
    }
    Box alike = alikeBefore(old, now, box);
    if (alike != null) {
      for (Box rest : outside(box, alike)) {
        open.push(new Open(rest, old, now));
      }
      return;
    }
    Box cutter = cutter(before, old, box);
    if (cutter == null) {
      cutter = cutter(after, now, box);
    }
    if (cutter == null) {
      Rule was = decider(before, old);
      Rule is = decider(after, now);
      if (!aspect.of(was).equals(aspect.of(is))) {
        found.add(new Difference.Part(box, share(box), was, is, null, List.of()));
      }
      return;
    }
    Box inside = box.intersection(cutter).orElseThrow();
    open.push(new Open(inside, old, now));
    for (Box rest : outside(box, cutter)) {
      open.push(new Open(rest, old, now));
    }
  }

  /** Where only rules that stand the same on both sides decide, they decide the same. */
  private boolean mayDiffer(int[] old, int[] now) {
    for (int slot : old) {
      if (!twins.containsKey(slot)) {
        return true;
      }
    }
    for (int slot : now) {
      if (!alikeAfter.contains(slot)) {
        return true;
      }
    }
    return false;
  }

  /**
   * A box of a rule above which, on both sides, only rules stand that are the same on both:
   * whatever it holds is decided alike. Of several the one that sticks out of this box on the
   * fewest axes, since taking it out leaves the fewest pieces; null if there is none.
   */
  private Box alikeBefore(int[] old, int[] now, Box box) {
    Set<Integer> above = new HashSet<>();
    for (int slot : now) {
      if (!alikeAfter.contains(slot)) {
        break;
      }
      above.add(slot);
    }
    Box best = null;
    int fewest = Integer.MAX_VALUE;
    for (int slot : old) {
      Integer twin = twins.get(slot);
      if (twin == null) {
        break;
      }
      if (!above.contains(twin)) {
        continue;
      }
      for (Box held : before.region(slot)) {
        int axes = held.intersects(box) ? sticksOut(box, held) : Integer.MAX_VALUE;
        if (axes < fewest) {
          best = held;
          fewest = axes;
        }
      }
    }
    return best;
  }

  private static int sticksOut(Box box, Box held) {
    int axes = 0;
    for (int axis = 0; axis < box.axes(); axis++) {
      axes += held.side(axis).containsAll(box.side(axis)) ? 0 : 1;
    }
    return axes;
  }

  /** The rules that meet the box, down to the first that holds all of it. */
  private static int[] upToTheFirstWhole(Order order, int[] slots, Box box) {
    int[] out = new int[slots.length];
    int count = 0;
    for (int slot : slots) {
      boolean meets = false;
      boolean whole = false;
      for (Box held : order.region(slot)) {
        meets |= held.intersects(box);
        whole |= meets && held.containsAll(box);
      }
      if (meets) {
        out[count++] = slot;
      }
      if (whole) {
        break;
      }
    }
    return Arrays.copyOf(out, count);
  }

  /** Whether every rule that can decide in the box, on either side, says the same. */
  private boolean allTheSame(int[] old, int[] now, Box box) {
    Set<Object> said = new HashSet<>();
    for (int slot : old) {
      said.add(aspect.of(before.rule(slot)));
    }
    for (int slot : now) {
      said.add(aspect.of(after.rule(slot)));
    }
    if (!endsWhole(before, old, box) || !endsWhole(after, now, box)) {
      said.add(aspect.of(null));
    }
    return said.size() < 2;
  }

  private static boolean endsWhole(Order order, int[] slots, Box box) {
    return slots.length > 0
        && order.region(slots[slots.length - 1]).stream().anyMatch(held -> held.containsAll(box));
  }

  /** The box of the first rule that holds a part of this box and not all; null if there is none. */
  private static Box cutter(Order order, int[] slots, Box box) {
    if (slots.length == 0) {
      return null;
    }
    for (Box held : order.region(slots[0])) {
      if (held.intersects(box)) {
        return held.containsAll(box) ? null : held;
      }
    }
    throw new IllegalStateException("a rule that does not meet the box");
  }

  private static Rule decider(Order order, int[] slots) {
    return slots.length == 0 ? null : order.rule(slots[0]);
  }

  /** What is left of a box without another that it meets, as disjoint boxes, an axis at a time. */
  static List<Box> outside(Box box, Box other) {
    List<Box> out = new ArrayList<>();
    Box rest = box;
    for (int axis = 0; axis < box.axes(); axis++) {
      IntSet side = rest.side(axis);
      IntSet beyond = side.minus(other.side(axis));
      if (!beyond.isEmpty()) {
        out.add(rest.with(axis, beyond));
        rest = rest.with(axis, side.intersect(other.side(axis)));
      }
    }
    return out;
  }

  private double share(Box box) {
    double share = 1;
    for (int axis = 0; axis < box.axes(); axis++) {
      share *= (double) space.count(axis, box.side(axis)) / space.classes(axis);
    }
    return share;
  }

  /** Joins pieces with the same deciders that differ on one axis only, until nothing joins. */
  private List<Difference.Part> joined(List<Difference.Part> found) {
    List<Difference.Part> parts = new ArrayList<>(found);
    boolean again = parts.size() <= MOST_TO_JOIN;
    while (again) {
      again = false;
      for (int axis = 0; axis < space.axes() && !parts.isEmpty(); axis++) {
        Map<List<Object>, Difference.Part> byRest = new HashMap<>();
        for (Difference.Part part : parts) {
          Difference.Part other = byRest.get(rest(part, axis));
          if (other == null) {
            byRest.put(rest(part, axis), part);
          } else {
            IntSet both = other.box().side(axis).union(part.box().side(axis));
            Box box = other.box().with(axis, both);
            byRest.put(
                rest(part, axis),
                new Difference.Part(box, share(box), part.before(), part.after(), null, List.of()));
            again = true;
          }
        }
        parts = new ArrayList<>(byRest.values());
      }
    }
    return parts;
  }

  /** All of a part but its side on one axis. */
  private static List<Object> rest(Difference.Part part, int axis) {
    List<Object> out = new ArrayList<>();
    out.add(Objects.requireNonNullElse(part.before(), ""));
    out.add(Objects.requireNonNullElse(part.after(), ""));
    for (int i = 0; i < part.box().axes(); i++) {
      out.add(i == axis ? "" : part.box().side(i));
    }
    return out;
  }

  private Difference.Part told(Difference.Part part) {
    return new Difference.Part(
        part.box(),
        part.share(),
        part.before(),
        part.after(),
        space.connection(part.box().lowest()),
        space.words(part.box()));
  }
}
