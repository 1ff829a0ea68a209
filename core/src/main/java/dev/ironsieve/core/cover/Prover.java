package dev.ironsieve.core.cover;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.List;

/**
 * Proves that boxes together hold all of a target.
 *
 * <p>The search subtracts a candidate that sticks out of what is left on one axis only without
 * branching (unit subtraction), and branches on the one that sticks out on the fewest axes. Each
 * part that proves covered returns a box that its proof covers, which is often larger than the
 * part, and the candidates that the proof used: two such boxes resolve on an axis to one that both
 * together cover (as in clause learning: Marques-Silva, Sakallah: GRASP, IEEE Trans. Computers
 * 48(5), 1999). A part whose box holds all of its parent settles the parent, and the other branches
 * are never looked at. The worst case is exponential in the number of axes, hence the budget.
 *
 * <p>Where nothing holds a part, an {@link BoxSource} may come up with one more box; the search
 * goes on from there.
 */
final class Prover {
  /** Deepest nesting of branches; deeper counts as an exhausted budget, since it ends the stack. */
  private static final int MAX_DEPTH = 600;

  /** The answer of a {@link BoxSource} that has no box. */
  static final int NOTHING = -1;

  /** Asked for a box where there is none yet. */
  interface BoxSource {
    /**
     * @param left what no box holds
     * @return the number of one more box of the packing, which meets {@code left}; or {@link
     *     #NOTHING}, which ends the search
     */
    int at(long[] left);
  }

  /** A box all of which is covered, and by which boxes. */
  private record Proof(long[] box, BitSet used) {}

  private final Packing packing;
  private final int[] offset;
  private final BoxSource opening;
  private final Budget budget;
  private boolean exhausted;

  Prover(Packing packing, BoxSource opening, Budget budget) {
    this.packing = packing;
    this.offset = packing.offset;
    this.opening = opening;
    this.budget = budget;
  }

  /** Whether the budget ran out. */
  boolean exhausted() {
    return exhausted;
  }

  /**
   * Which boxes a proof used that all of the target is held; null if an opening had none or the
   * budget ran out.
   *
   * @param candidates the boxes that count from the beginning
   */
  BitSet prove(int[] candidates) {
    Proof proof = solve(packing.target, candidates, 0);
    return proof == null ? null : proof.used;
  }

  /** A proof that candidates cover {@code whole}; null if they do not or it is not known. */
  Proof solve(long[] whole, int[] candidates, int depth) {
    long[] left = whole.clone();
    int[] live = Arrays.copyOf(candidates, candidates.length + 1); // room for one that opens up
    int count = candidates.length;
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
        long where = packing.sticksOut(left, packing.box(candidate));
        if (where < 0) {
          continue;
        }
        if (where == 0) {
          return widened(packing.box(candidate), candidate, whole, cutBy, cutOn, cuts);
        }
        int axes = Long.bitCount(where);
        if (axes == 1) {
          if (cuts == cutBy.length) {
            cutBy = Arrays.copyOf(cutBy, cuts * 2);
            cutOn = Arrays.copyOf(cutOn, cuts * 2);
          }
          cutBy[cuts] = candidate;
          cutOn[cuts] = Long.numberOfTrailingZeros(where);
          packing.remove(left, packing.box(candidate), cutOn[cuts]);
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
        int more = opening.at(left);
        if (more == NOTHING) {
          return null;
        }
        live[count++] = more;
        continue;
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

  /** The rest of {@code left} without the candidate, an axis at a time, and then itself. */
  private Proof branch(long[] left, int candidate, int[] others, int depth) {
    long[] box = packing.box(candidate);
    long where = packing.sticksOut(left, box);
    long[] rest = left.clone();
    int known = packing.size();
    List<Proof> proofs = new ArrayList<>();
    int[] axes = new int[Long.bitCount(where)];
    for (int i = 0; i < axes.length; i++) {
      int axis = Long.numberOfTrailingZeros(where);
      where &= where - 1;
      axes[i] = axis;
      long[] outside = rest.clone();
      packing.remove(outside, box, axis);
      Proof proof = solve(outside, withOpened(others, known), depth + 1);
      if (proof == null || Packing.holds(proof.box, left)) {
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
      if (!Packing.holds(covered, left)) {
        covered = resolved(covered, proofs.get(i).box, axes[i]);
        used.or(proofs.get(i).used);
      }
    }
    return new Proof(covered, used);
  }

  /** With the boxes that openings came up with since there were {@code known}. */
  private int[] withOpened(int[] others, int known) {
    int[] out = Arrays.copyOf(others, others.length + packing.size() - known);
    for (int i = others.length; i < out.length; i++) {
      out[i] = known + i - others.length;
    }
    return out;
  }

  private Proof widened(
      long[] box, int candidate, long[] whole, int[] cutBy, int[] cutOn, int cuts) {
    BitSet used = new BitSet();
    used.set(candidate);
    return widened(box, used, whole, cutBy, cutOn, cuts);
  }

  /** Undoes unit subtractions, the last first, as far as the proof needs them. */
  private Proof widened(long[] box, BitSet used, long[] whole, int[] cutBy, int[] cutOn, int cuts) {
    long[] covered = box;
    for (int i = cuts - 1; i >= 0 && !Packing.holds(covered, whole); i--) {
      long[] cutter = packing.box(cutBy[i]);
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
}
