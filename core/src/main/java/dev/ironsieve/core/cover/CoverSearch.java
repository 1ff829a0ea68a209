package dev.ironsieve.core.cover;

import dev.ironsieve.core.space.Box;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.List;
import java.util.function.IntFunction;

/**
 * Whether boxes together hold all of some target boxes.
 *
 * <p>The search subtracts a candidate that sticks out of what is left on one axis only without
 * branching (unit subtraction), and branches on the one that sticks out on the fewest axes. Each
 * part that proves covered returns a box that its proof covers, which is often larger than the
 * part, and the candidates that the proof used: two such boxes resolve on an axis to one that both
 * together cover (as in clause learning: Marques-Silva, Sakallah: GRASP, IEEE Trans. Computers
 * 48(5), 1999). A part whose box holds all of its parent settles the parent, and the other branches
 * are never looked at. The worst case is exponential in the number of axes, hence the budget.
 */
public final class CoverSearch {
  /** One box of a rule, which is meant by a number. */
  public record Candidate(int rule, Box box) {}

  /** What a search found out. */
  public sealed interface Outcome {
    /** This point of the target is in no candidate. */
    record Uncovered(int[] point) implements Outcome {}

    /** The candidates of these rules together hold all of the target. */
    record Covered(BitSet rules) implements Outcome {}

    /** The budget ran out. */
    record Exhausted() implements Outcome {}
  }

  /** Deepest nesting of branches; deeper counts as an exhausted budget, since it ends the stack. */
  private static final int MAX_DEPTH = 600;

  private CoverSearch() {}

  /** Whether all {@code candidates} together hold every box of {@code target}. */
  public static Outcome search(List<Box> target, List<Candidate> candidates, Budget budget) {
    BitSet used = new BitSet();
    for (Box box : target) {
      switch (search(box, candidates, budget)) {
        case Outcome.Covered covered -> used.or(covered.rules);
        case Outcome other -> {
          return other;
        }
      }
    }
    return new Outcome.Covered(used);
  }

  private static Outcome search(Box target, List<Candidate> candidates, Budget budget) {
    Part part = new Part(target, candidates);
    Run run = new Run(part, budget);
    int[] all = new int[part.boxes.length];
    Arrays.setAll(all, i -> i);
    Proof proof = run.solve(part.target, all, 0);
    if (run.exhausted) {
      return new Outcome.Exhausted();
    }
    if (proof == null) {
      return new Outcome.Uncovered(run.point);
    }
    BitSet used = new BitSet();
    proof.used.stream().forEach(i -> used.set(part.rules[i]));
    return new Outcome.Covered(used);
  }

  /** Finds a rule that holds a point, among those that may be used. */
  public interface Holder {
    int NOBODY = -1;

    /** The number of a rule that holds the point, or {@link #NOBODY}. */
    int of(int[] point);
  }

  /**
   * The same where the candidates are many and an index knows who holds a point: they are taken in
   * one by one, each because it holds a point that those before it leave open. Few of them are ever
   * looked at.
   *
   * @param holder finds a rule that holds a point
   * @param regions the boxes of a rule
   */
  public static Outcome search(
      List<Box> target, Holder holder, IntFunction<List<Box>> regions, Budget budget) {
    BitSet used = new BitSet();
    for (Box box : target) {
      List<Candidate> taken = new ArrayList<>();
      boolean covered = false;
      while (!covered) {
        switch (search(box, taken, budget)) {
          case Outcome.Covered proof -> {
            used.or(proof.rules);
            covered = true;
          }
          case Outcome.Exhausted exhausted -> {
            return exhausted;
          }
          case Outcome.Uncovered open -> {
            int rule = holder.of(open.point);
            if (rule == Holder.NOBODY) {
              return open;
            }
            for (Box held : regions.apply(rule)) {
              if (held.intersects(box)) {
                taken.add(new Candidate(rule, held));
              }
            }
          }
        }
      }
    }
    return new Outcome.Covered(used);
  }

  /** One target box and the candidates that meet it, all as bits; see {@link Cut}. */
  private static final class Part {
    final Cut[] cuts;
    final int[] offset; // of each axis in a packed box; one more for the end
    final long[] target;
    final long[][] boxes;
    final int[] rules;

    Part(Box target, List<Candidate> all) {
      List<Candidate> meeting = new ArrayList<>(all.size());
      List<Box> sides = new ArrayList<>(all.size());
      for (Candidate candidate : all) {
        if (candidate.box.intersects(target)) {
          meeting.add(candidate);
          sides.add(candidate.box);
        }
      }
      cuts = new Cut[target.axes()];
      offset = new int[cuts.length + 1];
      for (int axis = 0; axis < cuts.length; axis++) {
        cuts[axis] = new Cut(axis, target, sides);
        offset[axis + 1] = offset[axis] + cuts[axis].words;
      }
      this.target = pack(target);
      boxes = new long[meeting.size()][];
      rules = new int[meeting.size()];
      for (int i = 0; i < boxes.length; i++) {
        boxes[i] = pack(meeting.get(i).box);
        rules[i] = meeting.get(i).rule;
      }
    }

    private long[] pack(Box box) {
      long[] packed = new long[offset[cuts.length]];
      for (int axis = 0; axis < cuts.length; axis++) {
        long[] bits = cuts[axis].bits(box.side(axis));
        System.arraycopy(bits, 0, packed, offset[axis], bits.length);
      }
      return packed;
    }
  }

  /** A box all of which is covered, and by which candidates. */
  private record Proof(long[] box, BitSet used) {}

  /** One search; {@code point} is set when a part is found that nothing covers. */
  private static final class Run {
    private final Part part;
    private final int[] offset;
    private final Budget budget;
    private int[] point;
    private boolean exhausted;

    Run(Part part, Budget budget) {
      this.part = part;
      this.offset = part.offset;
      this.budget = budget;
    }

    /** A proof that candidates cover {@code whole}; null if they do not or it is not known. */
    Proof solve(long[] whole, int[] candidates, int depth) {
      long[] left = whole.clone();
      int[] live = candidates.clone();
      int count = live.length;
      int[] cutBy = new int[8];
      int[] cutOn = new int[8];
      int cuts = 0;
      while (true) {
        if (depth > MAX_DEPTH || !budget.take(count + 1L)) {
          exhausted = true;
          return null;
        }
        int touching = 0;
        int best = -1;
        int fewest = Integer.MAX_VALUE;
        int cutsBefore = cuts;
        for (int i = 0; i < count; i++) {
          int candidate = live[i];
          long where = sticksOut(left, part.boxes[candidate]);
          if (where < 0) {
            continue;
          }
          if (where == 0) {
            return widened(part.boxes[candidate], candidate, whole, cutBy, cutOn, cuts);
          }
          int axes = Long.bitCount(where);
          if (axes == 1) {
            if (cuts == cutBy.length) {
              cutBy = Arrays.copyOf(cutBy, cuts * 2);
              cutOn = Arrays.copyOf(cutOn, cuts * 2);
            }
            cutBy[cuts] = candidate;
            cutOn[cuts] = Long.numberOfTrailingZeros(where);
            remove(left, part.boxes[candidate], cutOn[cuts]);
            cuts++;
            continue;
          }
          live[touching++] = candidate;
          if (axes < fewest) {
            best = candidate;
            fewest = axes;
          }
        }
        count = touching;
        if (count == 0) {
          point = somePoint(left);
          return null;
        }
        if (cuts == cutsBefore) {
          Proof proof = branch(left, best, without(live, count, best), depth);
          return proof == null ? null : widened(proof.box, proof.used, whole, cutBy, cutOn, cuts);
        }
      }
    }

    private static int[] without(int[] live, int count, int candidate) {
      int[] out = new int[count - 1];
      int at = 0;
      for (int i = 0; i < count; i++) {
        if (live[i] != candidate) {
          out[at++] = live[i];
        }
      }
      return out;
    }

    /** What is left of {@code left} without the candidate, an axis at a time, and then itself. */
    private Proof branch(long[] left, int candidate, int[] others, int depth) {
      long[] box = part.boxes[candidate];
      long where = sticksOut(left, box);
      long[] rest = left.clone();
      List<Proof> proofs = new ArrayList<>();
      int[] axes = new int[Long.bitCount(where)];
      for (int i = 0; i < axes.length; i++) {
        int axis = Long.numberOfTrailingZeros(where);
        where &= where - 1;
        axes[i] = axis;
        long[] outside = rest.clone();
        remove(outside, box, axis);
        Proof proof = solve(outside, others, depth + 1);
        if (proof == null || holds(proof.box, left)) {
          return proof; // not covered, or this part alone settles all of it
        }
        proofs.add(proof);
        for (int word = offset[axis]; word < offset[axis + 1]; word++) {
          rest[word] &= box[word];
        }
      }
      long[] covered = box;
      BitSet used = new BitSet();
      used.set(candidate);
      for (int i = axes.length - 1; i >= 0; i--) {
        if (!holds(covered, left)) {
          covered = resolved(covered, proofs.get(i).box, axes[i]);
          used.or(proofs.get(i).used);
        }
      }
      return new Proof(covered, used);
    }

    private Proof widened(
        long[] box, int candidate, long[] whole, int[] cutBy, int[] cutOn, int cuts) {
      BitSet used = new BitSet();
      used.set(candidate);
      return widened(box, used, whole, cutBy, cutOn, cuts);
    }

    /** Takes unit subtractions back, the last first, as far as the proof needs them. */
    private Proof widened(
        long[] box, BitSet used, long[] whole, int[] cutBy, int[] cutOn, int cuts) {
      long[] covered = box;
      for (int i = cuts - 1; i >= 0 && !holds(covered, whole); i--) {
        long[] cutter = part.boxes[cutBy[i]];
        if (holdsOn(covered, whole, cutter, cutOn[i])) {
          continue;
        }
        covered = resolved(covered, cutter, cutOn[i]);
        used.set(cutBy[i]);
      }
      return new Proof(covered, used);
    }

    /** Whether {@code covered} already holds, on the axis, what the cutter took of the whole. */
    private boolean holdsOn(long[] covered, long[] whole, long[] cutter, int axis) {
      for (int word = offset[axis]; word < offset[axis + 1]; word++) {
        if ((whole[word] & cutter[word] & ~covered[word]) != 0) {
          return false;
        }
      }
      return true;
    }

    /** The box that two covered boxes cover together when they complete each other on an axis. */
    private long[] resolved(long[] a, long[] b, int axis) {
      long[] out = new long[a.length];
      for (int word = 0; word < out.length; word++) {
        out[word] =
            word >= offset[axis] && word < offset[axis + 1] ? a[word] | b[word] : a[word] & b[word];
      }
      return out;
    }

    private static boolean holds(long[] outer, long[] inner) {
      for (int word = 0; word < inner.length; word++) {
        if ((inner[word] & ~outer[word]) != 0) {
          return false;
        }
      }
      return true;
    }

    /** The axes, as bits, on which {@code left} is not inside the box; -1 if they are disjoint. */
    private long sticksOut(long[] left, long[] box) {
      long out = 0;
      for (int axis = 0; axis + 1 < offset.length; axis++) {
        long inside = 0;
        long outside = 0;
        for (int word = offset[axis]; word < offset[axis + 1]; word++) {
          inside |= left[word] & box[word];
          outside |= left[word] & ~box[word];
        }
        if (inside == 0) {
          return -1;
        }
        if (outside != 0) {
          out |= 1L << axis;
        }
      }
      return out;
    }

    private void remove(long[] left, long[] box, int axis) {
      for (int word = offset[axis]; word < offset[axis + 1]; word++) {
        left[word] &= ~box[word];
      }
    }

    private int[] somePoint(long[] left) {
      int[] out = new int[offset.length - 1];
      for (int axis = 0; axis < out.length; axis++) {
        for (int word = offset[axis + 1] - 1; word >= offset[axis]; word--) {
          if (left[word] != 0) {
            int bit = (word - offset[axis] << 6) + Long.numberOfTrailingZeros(left[word]);
            out[axis] = part.cuts[axis].labels[bit];
          }
        }
      }
      return out;
    }
  }
}
