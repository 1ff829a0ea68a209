package dev.ironsieve.core.matcher;

import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.order.Order;
import java.util.EnumMap;
import java.util.Map;

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
    Connection best = witness;
    for (Coordinate coordinate : witness.terms().keySet()) {
      Connection brief = without(best, coordinate);
      int[] point = order.space().point(brief);
      if (point != null
          && order.holds(slot, point)
          && order.first(point) == decides
          && order.firstWithout(slot, point) == instead) {
        best = brief;
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
