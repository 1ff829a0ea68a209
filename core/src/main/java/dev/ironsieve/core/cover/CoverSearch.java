package dev.ironsieve.core.cover;

import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.space.Box;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.List;
import java.util.function.IntFunction;

/**
 * Decides whether candidate boxes together cover all target boxes.
 *
 * <p>{@link Prover} describes the search. The worst case is exponential in the number of axes,
 * hence the budget.
 */
public final class CoverSearch {
  /** One box of a rule, which is meant by a number. */
  public record Candidate(int rule, Box box) {}

  /** The result of a search. */
  public sealed interface Outcome {
    /** This point of the target is in no candidate. */
    record Uncovered(int[] point) implements Outcome {}

    /** The candidates of these rules together hold all of the target. */
    record Covered(IntSet rules) implements Outcome {}

    /** The budget ran out. */
    record Exhausted() implements Outcome {}
  }

  /** Picks points of a box that no candidate holds: which others hold them decides what is next. */
  public interface Picker {
    /** The lowest code of each axis, the highest of each, and lowest and highest in turn. */
    Picker FAR_APART = CoverSearch::farApart;

    /** At least one point; the first is given as an example if there is nothing to hold it. */
    List<int[]> of(Box open);
  }

  private CoverSearch() {}

  private static List<int[]> farApart(Box open) {
    int[] lowest = open.lowest();
    int[] highest = new int[lowest.length];
    int[] mixed = new int[lowest.length];
    for (int axis = 0; axis < highest.length; axis++) {
      highest[axis] = open.side(axis).max();
      mixed[axis] = axis % 2 == 0 ? lowest[axis] : highest[axis];
    }
    return List.of(lowest, highest, mixed);
  }

  /** All boxes of some rules. */
  public static List<Candidate> candidates(int[] rules, IntFunction<List<Box>> regions) {
    List<Candidate> out = new ArrayList<>();
    for (int rule : rules) {
      for (Box box : regions.apply(rule)) {
        out.add(new Candidate(rule, box));
      }
    }
    return out;
  }

  /** Whether all {@code candidates} together hold every box of {@code target}. */
  public static Outcome search(List<Box> target, List<Candidate> candidates, Budget budget) {
    return search(target, candidates, Picker.FAR_APART, budget);
  }

  /**
   * The same, with a choice of the uncovered point that is returned.
   *
   * @param picker chooses the first point
   */
  public static Outcome search(
      List<Box> target, List<Candidate> candidates, Picker picker, Budget budget) {
    IntSet used = IntSet.EMPTY;
    for (Box box : target) {
      Tried tried = attempt(box, candidates, budget);
      if (tried.open != null) {
        return new Outcome.Uncovered(picker.of(tried.open).getFirst());
      }
      if (!(tried.outcome instanceof Outcome.Covered covered)) {
        return tried.outcome;
      }
      used = used.union(covered.rules);
    }
    return new Outcome.Covered(used);
  }

  /**
   * The result of a search with what it used.
   *
   * @param open what no candidate holds, or null
   * @param outcome if there is nothing open
   */
  private record Tried(Box open, Outcome outcome) {}

  private static Tried attempt(Box target, List<Candidate> candidates, Budget budget) {
    List<Candidate> overlapping = new ArrayList<>(candidates.size());
    for (Candidate candidate : candidates) {
      if (candidate.box.intersects(target)) {
        if (candidate.box.containsAll(target)) {
          return new Tried(null, covered(candidate.rule));
        }
        overlapping.add(candidate);
      }
    }
    return attempt(new Packing(target, boxes(overlapping)), overlapping, budget);
  }

  private static List<Box> boxes(List<Candidate> candidates) {
    List<Box> boxes = new ArrayList<>(candidates.size());
    for (Candidate candidate : candidates) {
      boxes.add(candidate.box);
    }
    return boxes;
  }

  /**
   * @param packing of the boxes of those that meet the target, none of which holds all of it
   */
  private static Tried attempt(Packing packing, List<Candidate> overlapping, Budget budget) {
    Box[] open = new Box[1];
    Prover prover =
        new Prover(
            packing,
            left -> {
              open[0] = packing.unpack(left);
              return Prover.NOTHING;
            },
            budget);
    BitSet proof = prover.prove(packing.all());
    if (prover.exhausted()) {
      return new Tried(null, new Outcome.Exhausted());
    }
    return new Tried(
        open[0], proof == null ? null : new Outcome.Covered(rules(proof, overlapping)));
  }

  private static IntSet rules(BitSet some, List<Candidate> candidates) {
    int[] rules = new int[some.cardinality()];
    int count = 0;
    for (int i = some.nextSetBit(0); i >= 0; i = some.nextSetBit(i + 1)) {
      rules[count++] = candidates.get(i).rule;
    }
    return IntSet.of(rules);
  }

  private static Outcome covered(int rule) {
    return new Outcome.Covered(IntSet.of(rule));
  }

  /** Finds a rule that holds a point, among those that may be used. */
  public interface Holder {
    int NOBODY = -1;

    /** The work limit was reached before that was known. */
    int UNKNOWN = -2;

    /** The number of a rule that holds the point, or {@link #NOBODY}, or {@link #UNKNOWN}. */
    int of(int[] point);
  }

  /**
   * The same where the candidates are many and an index knows who holds a point: they are taken in
   * a few at a time, each because it holds a point that those before it leave open. Few of them are
   * ever looked at.
   *
   * @param holder finds a rule that holds a point
   * @param regions the boxes of a rule
   */
  public static Outcome search(
      List<Box> target, Holder holder, IntFunction<List<Box>> regions, Budget budget) {
    return search(target, holder, Picker.FAR_APART, regions, budget);
  }

  /**
   * The same with a say in where a holder is asked for. Points that few rules hold are the best:
   * each of those that hold them is soon needed, or there is none.
   */
  public static Outcome search(
      List<Box> target,
      Holder holder,
      Picker picker,
      IntFunction<List<Box>> regions,
      Budget budget) {
    return search(target, IntSet.EMPTY, holder, picker, regions, budget);
  }

  /**
   * The same where some rules are likely to be of use.
   *
   * @param likely rules that may be used, and are taken in from the beginning
   */
  public static Outcome search(
      List<Box> target,
      IntSet likely,
      Holder holder,
      Picker picker,
      IntFunction<List<Box>> regions,
      Budget budget) {
    IntSet used = IntSet.EMPTY;
    for (Box box : target) {
      switch (new Taking(box, holder, picker, regions).search(likely, budget)) {
        case Outcome.Covered proof -> used = used.union(proof.rules);
        case Outcome other -> {
          return other;
        }
      }
    }
    return new Outcome.Covered(used);
  }

  /** The rules that are taken in for one box. */
  private static final class Taking {
    private final Box box;
    private final Holder holder;
    private final Picker picker;
    private final IntFunction<List<Box>> regions;
    private final List<Candidate> taken = new ArrayList<>();

    Taking(Box box, Holder holder, Picker picker, IntFunction<List<Box>> regions) {
      this.box = box;
      this.holder = holder;
      this.picker = picker;
      this.regions = regions;
    }

    Outcome search(IntSet likely, Budget budget) {
      for (int rule : likely.toArray()) {
        if (take(rule)) {
          return covered(rule);
        }
      }
      if (taken.isEmpty()) { // nothing tells points of the box apart yet
        int[] point = picker.of(box).getFirst();
        if (!budget.take(1)) {
          return new Outcome.Exhausted();
        }
        int rule = holder.of(point);
        if (rule == Holder.UNKNOWN) {
          return new Outcome.Exhausted();
        }
        if (rule == Holder.NOBODY) {
          return new Outcome.Uncovered(point);
        }
        if (take(rule)) {
          return covered(rule);
        }
      }
      Packing packing = null;
      while (true) {
        if (!budget.take(taken.size())) { // each is packed again
          return new Outcome.Exhausted();
        }
        packing = new Packing(box, boxes(taken), packing);
        Tried tried = attempt(packing, taken, budget);
        if (tried.open == null) {
          return tried.outcome;
        }
        int before = taken.size();
        for (int[] point : picker.of(tried.open)) {
          if (isHeld(point, before)) {
            continue;
          }
          int rule = holder.of(point);
          if (rule == Holder.UNKNOWN) {
            return new Outcome.Exhausted();
          }
          if (rule == Holder.NOBODY) {
            return new Outcome.Uncovered(point);
          }
          if (take(rule)) {
            return covered(rule);
          }
        }
      }
    }

    /** Whether one of the boxes holds the point that were taken from the place {@code from} on. */
    private boolean isHeld(int[] point, int from) {
      for (int i = from; i < taken.size(); i++) {
        if (taken.get(i).box.contains(point)) {
          return true;
        }
      }
      return false;
    }

    /** Adds a rule; true if one of its boxes holds all, so that no other rule is needed. */
    private boolean take(int rule) {
      for (Box held : regions.apply(rule)) {
        if (held.intersects(box)) {
          if (held.containsAll(box)) {
            return true;
          }
          taken.add(new Candidate(rule, held));
        }
      }
      return false;
    }
  }
}
