package dev.ironsieve.bench.peers;

import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.ruleindex.RuleIndex;
import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.space.Box;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/**
 * One decision diagram of everything that the rules so far hold (after Gouda, Liu: Structured
 * Firewall Design, Computer Networks 51(4), 2007): a node asks for the label on one axis and has an
 * edge for each run of labels; equal nodes are one. A rule decides something if it is not wholly
 * below the diagram, and is joined to it then.
 *
 * <pre>
 *   bounds  [ 100 | 250 | max ]     labels 0..100, 101..250, 251..max
 *   next    [  7  |  0  |  3  ]     nodes of the next axis; 0 nothing, 1 everything
 * </pre>
 */
public final class DiagramPeer implements Peer {
  private static final int NOTHING = 0;
  private static final int EVERYTHING = 1;

  private record Node(int[] bounds, int[] next) {
    @Override
    public boolean equals(Object o) {
      return o instanceof Node other
          && Arrays.equals(bounds, other.bounds)
          && Arrays.equals(next, other.next);
    }

    @Override
    public int hashCode() {
      return 31 * Arrays.hashCode(bounds) + Arrays.hashCode(next);
    }
  }

  private final RuleIndex index;
  private final int mostEdges;
  private final List<Map<Node, Integer>> known = new ArrayList<>(); // by axis
  private final List<Node> nodes = new ArrayList<>();
  private int root = NOTHING;
  private int next;
  private long edges;
  private boolean gaveUp;

  /**
   * @param mostEdges gives up when its nodes have more edges together
   */
  public DiagramPeer(Rulebase rulebase, int mostEdges) {
    index = new RuleIndex(rulebase);
    this.mostEdges = mostEdges;
    for (int axis = 0; axis < index.space().axes(); axis++) {
      known.add(new HashMap<>());
    }
    nodes.add(null); // NOTHING
    nodes.add(null); // EVERYTHING
  }

  @Override
  public Answer next() {
    int handle = index.handleAt(next++);
    if (gaveUp) {
      return Answer.GAVE_UP;
    }
    if (!index.rule(handle).enabled()) {
      return Answer.DOES_NOT;
    }
    boolean decides = false;
    for (Box box : index.region(handle)) {
      decides |= !holds(root, box, 0, new HashMap<>());
    }
    if (decides) {
      for (Box box : index.region(handle)) {
        root = union(root, chain(box, 0), 0, new HashMap<>());
      }
    }
    return gaveUp ? Answer.GAVE_UP : decides ? Answer.DECIDES : Answer.DOES_NOT;
  }

  private int node(int axis, int[] bounds, int[] next, int count) {
    int kept = 0;
    for (int i = 0; i < count; i++) {
      if (kept > 0 && next[kept - 1] == next[i]) {
        bounds[kept - 1] = bounds[i];
      } else {
        bounds[kept] = bounds[i];
        next[kept++] = next[i];
      }
    }
    if (kept == 1 && next[0] <= EVERYTHING) {
      return next[0];
    }
    Node node = new Node(Arrays.copyOf(bounds, kept), Arrays.copyOf(next, kept));
    return known
        .get(axis)
        .computeIfAbsent(
            node,
            fresh -> {
              nodes.add(fresh);
              edges += fresh.next.length;
              gaveUp |= edges > mostEdges;
              return nodes.size() - 1;
            });
  }

  private int chain(Box box, int axis) {
    if (axis == index.space().axes()) {
      return EVERYTHING;
    }
    int below = chain(box, axis + 1);
    IntSet side = box.side(axis);
    int last = index.space().all(axis).max();
    int[] bounds = new int[side.intervals() * 2 + 1];
    int[] next = new int[bounds.length];
    int count = 0;
    for (int i = 0; i < side.intervals(); i++) {
      if (side.first(i) > 0) {
        bounds[count] = side.first(i) - 1;
        next[count++] = NOTHING;
      }
      bounds[count] = side.last(i);
      next[count++] = below;
    }
    if (side.max() < last) {
      bounds[count] = last;
      next[count++] = NOTHING;
    }
    return node(axis, bounds, next, count);
  }

  private int union(int a, int b, int axis, Map<Long, Integer> done) {
    if (a == b || b == NOTHING || a == EVERYTHING || gaveUp) {
      return a; // which is wrong once it gave up, but nobody asks any more
    }
    if (a == NOTHING || b == EVERYTHING) {
      return b;
    }
    long key = (long) a << 32 | b;
    Integer known = done.get(key);
    if (known != null) {
      return known;
    }
    Node one = nodes.get(a);
    Node other = nodes.get(b);
    int[] bounds = new int[one.bounds.length + other.bounds.length];
    int[] next = new int[bounds.length];
    int count = 0;
    int i = 0;
    int j = 0;
    while (i < one.bounds.length && j < other.bounds.length) {
      bounds[count] = Math.min(one.bounds[i], other.bounds[j]);
      next[count] = union(one.next[i], other.next[j], axis + 1, done);
      i += one.bounds[i] == bounds[count] ? 1 : 0;
      j += other.bounds[j] == bounds[count] ? 1 : 0;
      count++;
    }
    int out = node(axis, bounds, next, count);
    done.put(key, out);
    return out;
  }

  /** Whether all of a box, from one axis on, is below a node. */
  private boolean holds(int number, Box box, int axis, Map<Integer, Boolean> done) {
    if (number <= EVERYTHING) {
      return number == EVERYTHING;
    }
    Boolean known = done.get(number);
    if (known != null) {
      return known;
    }
    Node node = nodes.get(number);
    boolean all = true;
    int first = 0;
    for (int i = 0; i < node.bounds.length && all; i++) {
      if (box.side(axis).meets(first, node.bounds[i])) {
        all = holds(node.next[i], box, axis + 1, done);
      }
      first = node.bounds[i] + 1;
    }
    done.put(number, all);
    return all;
  }
}
