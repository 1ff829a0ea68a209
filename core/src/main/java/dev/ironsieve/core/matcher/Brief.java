package dev.ironsieve.core.matcher;

import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.order.Order;
import java.util.EnumMap;
import java.util.Map;
import java.util.Set;
import java.util.function.Predicate;

/** Says a connection that proves something of a rule without what the proof does not hang on. */
public final class Brief {
  private Brief() {}

  /**
   * The connection without the terms that can stay unknown: the rule still holds for it, and the
   * same rules decide it, with the rule and without. O(terms) look-ups.
   *
   * @param witness wholly known; the rule holds for it
   * @param slot of the rule
   */
  public static Connection of(Connection witness, int slot, Order order) {
    int[] whole = order.space().point(witness);
    if (whole == null) {
      return witness;
    }
    int decides = order.first(whole);
    int instead = order.firstWithout(slot, whole);
    return brief(
        witness,
        Set.of(),
        order,
        point ->
            order.holds(slot, point)
                && order.first(point) == decides
                && order.firstWithout(slot, point) == instead);
  }

  /**
   * The connection without the terms that can stay unknown: the same rule decides it. O(terms)
   * look-ups.
   *
   * @param witness wholly known
   * @param kept what is said whether it matters or not
   */
  public static Connection deciding(Connection witness, Set<Coordinate> kept, Order order) {
    int[] whole = order.space().point(witness);
    if (whole == null) {
      return witness;
    }
    int decides = order.first(whole);
    return brief(witness, kept, order, point -> order.first(point) == decides);
  }

  /**
   * The connection without the terms that can stay unknown: each of two orders in one space still
   * decides it by the same rule. O(terms) look-ups.
   *
   * @param witness wholly known
   */
  public static Connection deciding(Connection witness, Order before, Order after) {
    int[] whole = before.space().point(witness);
    if (whole == null) {
      return witness;
    }
    int was = before.first(whole);
    int is = after.first(whole);
    return brief(
        witness, Set.of(), before, point -> before.first(point) == was && after.first(point) == is);
  }

  private static Connection brief(
      Connection witness, Set<Coordinate> kept, Order order, Predicate<int[]> proves) {
    Connection best = witness;
    for (Coordinate coordinate : witness.terms().keySet()) {
      if (!kept.contains(coordinate)) {
        Connection brief = without(best, coordinate);
        int[] point = order.space().point(brief);
        best = point != null && proves.test(point) ? brief : best;
      }
    }
    return best;
  }

  private static Connection without(Connection connection, Coordinate coordinate) {
    Map<Coordinate, String> terms = new EnumMap<>(Coordinate.class);
    terms.putAll(connection.terms());
    terms.remove(coordinate);
    return connection.saying(terms);
  }
}
