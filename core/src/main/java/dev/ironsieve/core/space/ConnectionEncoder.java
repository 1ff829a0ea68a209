package dev.ironsieve.core.space;

import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.sets.Address;
import dev.ironsieve.core.sets.Transport;
import java.util.List;
import java.util.function.BiPredicate;

/** Finds the points of connections in a space. */
final class ConnectionEncoder {
  private final Space space;

  ConnectionEncoder(Space space) {
    this.space = space;
  }

  /**
   * The point of a connection. A protocol without ports has every source port alike, so the lowest
   * stands for them; a term that is not known is {@link #UNKNOWN}. Null if something else is
   * unknown or infeasible that some rule tells apart.
   */
  int[] point(Connection connection) {
    int[] point = new int[space.axes.length];
    boolean known =
        codeEnds(connection, point)
            && serviceCode(connection, point)
            && sourcePortCode(connection, point);
    if (!known) {
      return null;
    }
    for (int i = 0; i < space.terms.length; i++) {
      codeTerm(i, connection, point);
    }
    return point;
  }

  /**
   * The points of many connections, each as {@link #point} tells it. All are laid on one axis
   * before the next, for what is read of an axis is still near then.
   */
  int[][] points(List<Connection> connections) {
    int[][] out = new int[connections.size()][space.axes.length];
    lay(connections, out, this::codeEnds);
    lay(connections, out, this::serviceCode);
    lay(connections, out, this::sourcePortCode);
    for (int i = 0; i < space.terms.length; i++) {
      int term = i;
      lay(
          connections,
          out,
          (connection, point) -> {
            codeTerm(term, connection, point);
            return true;
          });
    }
    return out;
  }

  private static void lay(
      List<Connection> connections, int[][] points, BiPredicate<Connection, int[]> code) {
    for (int i = 0; i < points.length; i++) {
      if (points[i] != null && !code.test(connections.get(i), points[i])) {
        points[i] = null;
      }
    }
  }

  /** Lays a connection on the axes of its ends; false if that takes what is not known of it. */
  private boolean codeEnds(Connection connection, int[] point) {
    int fromZone = space.resolution.zoneNumber(connection.from().zone());
    int toZone = space.resolution.zoneNumber(connection.to().zone());
    Address fromAddress = connection.from().address();
    Address toAddress = connection.to().address();
    if (fromZone < 0
        || toZone < 0
        || fromAddress == null
        || toAddress == null
        || fromAddress.family() != toAddress.family()) {
      return false;
    }
    point[Space.FROM] = space.from.codeOf(fromZone, fromAddress);
    point[Space.TO] = space.to.codeOf(toZone, toAddress);
    return point[Space.FROM] >= 0 && point[Space.TO] >= 0;
  }

  private boolean serviceCode(Connection connection, int[] point) {
    if (connection.protocol() < 0 || connection.detail() < 0) {
      return space.services.classes() <= 1;
    }
    point[Space.SERVICE] =
        space.services.codeOf(Transport.position(connection.protocol(), connection.detail()));
    return true;
  }

  private boolean sourcePortCode(Connection connection, int[] point) {
    if (connection.sourcePort() >= 0) {
      point[Space.SOURCE_PORT] = space.sourcePorts.codeOf(connection.sourcePort());
      return true;
    }
    return space.sourcePorts.classes() <= 1
        || connection.protocol() >= 0 && !Transport.hasPorts(connection.protocol());
  }

  private void codeTerm(int i, Connection connection, int[] point) {
    int value = space.resolution.valueNumber(i, connection.terms().get(space.coordinates[i]));
    if (value >= 0) {
      point[Space.TERMS + i] = space.terms[i].codeOf(value);
    } else if (space.asked[i]) {
      point[Space.TERMS + i] = Space.UNKNOWN;
    }
  }

  /**
   * Whether some box holds the point of a connection, or there is none, see {@link #point}. Terms
   * are laid out only as long as a box may hold it, so this is quicker where none does.
   *
   * @param connection all terms of which that are known are values here
   */
  boolean mayHold(List<Box> boxes, Connection connection) {
    int[] point = new int[space.axes.length];
    if (!codeEnds(connection, point)
        || !serviceCode(connection, point)
        || !sourcePortCode(connection, point)) {
      return true;
    }
    for (Box box : boxes) {
      if (mayHold(box, connection, point)) {
        return true;
      }
    }
    return false;
  }

  /**
   * @param point of the connection, without its terms
   */
  private boolean mayHold(Box box, Connection connection, int[] point) {
    for (int axis = 0; axis < Space.TERMS; axis++) {
      if (!space.holds(box, axis, point)) {
        return false;
      }
    }
    for (int i = 0; i < space.terms.length; i++) {
      codeTerm(i, connection, point);
      if (!space.holds(box, Space.TERMS + i, point)) {
        return false;
      }
    }
    return true;
  }
}
