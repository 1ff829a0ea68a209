package dev.ironsieve.core.analysis;

import dev.ironsieve.core.analysis.Certificate.Below;
import dev.ironsieve.core.analysis.Certificate.Needs;
import dev.ironsieve.core.analysis.Certificate.Pair;
import dev.ironsieve.core.analysis.Certificate.Standing;
import dev.ironsieve.core.analysis.Certificate.Unmet;
import dev.ironsieve.core.ruleindex.RuleIndex;
import java.util.Arrays;

/**
 * Takes certificates along when the same rules are laid out anew: what a point proves of rules, any
 * connection of its class proves, and so does the point that holds that one in the other space.
 *
 * @param from the rules as they were laid out
 * @param relayout the same rules, in the same order
 */
record CertificateTranslation(RuleIndex from, RuleIndex.Relayout relayout) {
  RuleIndex to() {
    return relayout.index();
  }

  int handle(int handle) {
    return handle == RuleIndex.NONE ? RuleIndex.NONE : to().handleAt(from.position(handle));
  }

  private int[] handles(int[] handles) {
    return Arrays.stream(handles).map(this::handle).sorted().toArray();
  }

  private int[] point(int[] point) {
    return relayout.points().apply(point);
  }

  Standing of(Standing standing) {
    return switch (standing) {
      case Standing.Decides s -> new Standing.Decides(point(s.point()));
      case Standing.Covered s ->
          new Standing.Covered(
              s.shadowed(),
              handles(s.causes()),
              s.minimality(),
              point(s.point()),
              handle(s.decidedBy()));
      case Standing.Empty s -> s;
      case Standing.PassedOver s -> s;
      case Standing.Undecided s -> s;
    };
  }

  Below of(Below below) {
    return switch (below) {
      case Below.Matters b -> new Below.Matters(point(b.point()), handle(b.next()));
      case Below.Redundant b ->
          new Below.Redundant(
              handles(b.causes()), b.minimality(), point(b.point()), handle(b.next()));
      case Below.NotAsked b -> b;
      case Below.Undecided b -> b;
    };
  }

  Pair of(Pair pair) {
    return switch (pair) {
      case Pair.Found p -> new Pair.Found(handle(p.other()), point(p.point()));
      case Pair.None p -> p;
      case Pair.Undecided p -> p;
    };
  }

  Needs of(Needs needs) {
    return needs.unmet().isEmpty()
        ? needs
        : new Needs(needs.unmet().stream().map(this::of).toList(), needs.settled());
  }

  private Unmet of(Unmet unmet) {
    return new Unmet(
        unmet.applications(),
        unmet.needed(),
        point(unmet.point()),
        handles(unmet.causes()),
        unmet.minimality());
  }
}
