package dev.ironsieve.core.analysis;

import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.ruleindex.RuleIndex;
import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.sets.Transport;
import dev.ironsieve.core.space.Box;
import dev.ironsieve.core.space.Resolution;
import dev.ironsieve.core.space.Space;

/**
 * Unseen feature, for paths: a rule that tells paths of one host apart in connections that may be
 * encrypted, and so show them only where they are opened.
 */
final class UnseenPath {
  private static final int HTTPS = 443;

  private UnseenPath() {}

  /** Whether the rule, which leaves connections sealed, asks for some paths of a host only. */
  static boolean areUnseen(int handle, RuleIndex index) {
    Resolution resolution = index.resolution();
    for (int i = 0; i < resolution.vocabularies().size(); i++) {
      if (resolution.vocabularies().get(i).coordinate() == Coordinate.SITE) {
        IntSet wanted = index.match(handle).terms().get(i);
        return wanted != resolution.anyTerms().get(i)
            && mayBeEncrypted(handle, index)
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
  private static boolean mayBeEncrypted(int handle, RuleIndex index) {
    Space space = index.space();
    for (int protocol : new int[] {Transport.TCP, Transport.UDP}) {
      int code = space.serviceCode(Transport.position(protocol, HTTPS));
      for (Box box : index.region(handle)) {
        if (box.side(Space.SERVICE).contains(code)) {
          return true;
        }
      }
    }
    return false;
  }
}
