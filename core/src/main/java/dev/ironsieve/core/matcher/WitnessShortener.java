package dev.ironsieve.core.matcher;

import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.ruleindex.RuleIndex;
import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.space.Box;
import dev.ironsieve.core.space.Space;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Predicate;

/**
 * Shortens a witness: drops every term that the proof does not need. What is left unsaid may have
 * any value, so a term is dropped only if the proof holds for every value of it.
 */
public final class WitnessShortener {
  private WitnessShortener() {}

  /**
   * The connection without terms that may have any value: the rule holds for all connections that
   * agree with it, and the same rules decide all of them, with the rule and without. O(terms)
   * overlap queries.
   *
   * @param witness wholly known; the rule holds for it
   * @param handle of the rule
   */
  public static Connection of(Connection witness, int handle, RuleIndex index) {
    int[] point = index.space().point(witness);
    if (point == null) {
      return witness;
    }
    int decides = index.first(point);
    int instead = index.firstWithout(handle, point);
    return brief(
        witness,
        point,
        Set.of(),
        index.space(),
        box ->
            holdsAll(handle, box, index)
                && decidesAll(decides, RuleIndex.NONE, box, index)
                && decidesAll(instead, handle, box, index));
  }

  /**
   * The connection without terms that may have any value: the same rule decides all connections
   * that agree with it. O(terms) overlap queries.
   *
   * @param witness complete
   * @param kept coordinates that stay in any case
   */
  public static Connection deciding(Connection witness, Set<Coordinate> kept, RuleIndex index) {
    int[] point = index.space().point(witness);
    if (point == null) {
      return witness;
    }
    int decides = index.first(point);
    return brief(
        witness,
        point,
        kept,
        index.space(),
        box -> decidesAll(decides, RuleIndex.NONE, box, index));
  }

  /**
   * The connection without terms that may have any value: each of two orders in one space decides
   * all connections that agree with it by one rule. O(terms) overlap queries.
   *
   * @param witness wholly known
   */
  public static Connection deciding(Connection witness, RuleIndex before, RuleIndex after) {
    int[] point = before.space().point(witness);
    if (point == null) {
      return witness;
    }
    int was = before.first(point);
    int is = after.first(point);
    return brief(
        witness,
        point,
        Set.of(),
        before.space(),
        box ->
            decidesAll(was, RuleIndex.NONE, box, before)
                && decidesAll(is, RuleIndex.NONE, box, after));
  }

  /** Whether one box of a rule holds all of a box; the default rule holds everything. */
  private static boolean holdsAll(int handle, Box box, RuleIndex index) {
    return handle == RuleIndex.NONE
        || index.region(handle).stream().anyMatch(own -> own.containsAll(box));
  }

  /**
   * Whether a rule decides all of a box, since it holds all of it and no rule above meets it.
   *
   * @param without a rule that is not there, or {@link RuleIndex#NONE}
   */
  private static boolean decidesAll(int handle, int without, Box box, RuleIndex index) {
    int end = handle == RuleIndex.NONE ? index.size() : index.position(handle);
    return holdsAll(handle, box, index)
        && index.overlapping(List.of(box), 0, end, other -> other != without).length == 0;
  }

  private static Connection brief(
      Connection witness, int[] point, Set<Coordinate> kept, Space space, Predicate<Box> proves) {
    List<Coordinate> terms = new ArrayList<>(witness.terms().keySet());
    terms.removeAll(kept);
    Set<Coordinate> all = new HashSet<>(terms);
    if (proves.test(box(point, all, space))) {
      return without(witness, all);
    }
    Set<Coordinate> dropped = new HashSet<>();
    for (Coordinate coordinate : terms) {
      dropped.add(coordinate);
      if (!proves.test(box(point, dropped, space))) {
        dropped.remove(coordinate);
      }
    }
    return without(witness, dropped);
  }

  /** The point's class on each axis, and everything on those of some coordinates. */
  private static Box box(int[] point, Set<Coordinate> free, Space space) {
    IntSet[] sides = new IntSet[point.length];
    for (int axis = 0; axis < sides.length; axis++) {
      sides[axis] =
          point[axis] == Space.UNKNOWN ? space.all(axis) : space.classOf(axis, point[axis]);
    }
    for (Coordinate coordinate : free) {
      int axis = space.axis(coordinate);
      if (axis >= 0) {
        sides[axis] = space.all(axis);
      }
    }
    return new Box(sides);
  }

  private static Connection without(Connection connection, Set<Coordinate> dropped) {
    Map<Coordinate, String> terms = new EnumMap<>(Coordinate.class);
    terms.putAll(connection.terms());
    terms.keySet().removeAll(dropped);
    return connection.saying(terms);
  }
}
