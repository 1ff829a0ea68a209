package dev.ironsieve.core.analysis;

import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.order.Order;
import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.sets.Transport;
import dev.ironsieve.core.space.Box;
import dev.ironsieve.core.space.Resolution;
import dev.ironsieve.core.space.Space;

/**
 * Unseen feature, for paths: a rule that tells paths of one host apart in connections that may be
 * encrypted, and so show them only where they are opened.
 */
final class Paths {
  private static final int HTTPS = 443;

  private Paths() {}

  /** Whether the rule, which leaves connections sealed, asks for some paths of a host only. */
  static boolean areUnseen(int slot, Order order) {
    Resolution resolution = order.resolution();
    for (int i = 0; i < resolution.vocabularies().size(); i++) {
      if (resolution.vocabularies().get(i).coordinate() == Coordinate.SITE) {
        IntSet wanted = order.match(slot).terms().get(i);
        return wanted != resolution.anyTerms().get(i)
            && mayBeEncrypted(slot, order)
            && tellsPathsApart(wanted, i, resolution);
      }
    }
    return false;
  }

  private static boolean tellsPathsApart(IntSet wanted, int vocabulary, Resolution resolution) {
    for (int i = 0; i < wanted.intervals(); i++) {
      for (int value = wanted.first(i); value <= wanted.last(i); value++) {
        if (resolution.vocabularies().get(vocabulary).values().get(value).indexOf('/') >= 0
            && !wanted.containsAll(resolution.known(vocabulary, Coordinate.SITE, value))) {
          return true;
        }
      }
    }
    return false;
  }

  /** Whether it holds on the port of HTTPS, over TCP or QUIC. */
  private static boolean mayBeEncrypted(int slot, Order order) {
    Space space = order.space();
    for (int protocol : new int[] {Transport.TCP, Transport.UDP}) {
      int label = space.serviceLabel(Transport.position(protocol, HTTPS));
      for (Box box : order.region(slot)) {
        if (box.side(Space.SERVICE).contains(label)) {
          return true;
        }
      }
    }
    return false;
  }
}
