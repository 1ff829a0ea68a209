package dev.ironsieve.core.cover;

import dev.ironsieve.core.space.Box;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.List;
import java.util.function.IntFunction;

/**
 * Whether boxes together hold all of some target boxes.
 *
 * <p>How the search goes is told at {@link Prover}. The worst case is exponential in the number of
 * axes, hence the budget.
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
    List<Candidate> meeting =
        candidates.stream().filter(candidate -> candidate.box.intersects(target)).toList();
    Packing packing = new Packing(target, meeting.stream().map(Candidate::box).toList());
    int[][] open = new int[1][];
    Prover prover =
        new Prover(
            packing,
            left -> {
              open[0] = packing.somePoint(left);
              return Prover.NOTHING;
            },
            budget);
    BitSet proof = prover.prove(packing.all());
    if (prover.exhausted()) {
      return new Outcome.Exhausted();
    }
    if (proof == null) {
      return new Outcome.Uncovered(open[0]);
    }
    BitSet used = new BitSet();
    proof.stream().forEach(i -> used.set(meeting.get(i).rule));
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
}
