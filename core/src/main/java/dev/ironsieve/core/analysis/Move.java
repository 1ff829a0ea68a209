package dev.ironsieve.core.analysis;

import dev.ironsieve.core.analysis.Certificate.Below;
import dev.ironsieve.core.analysis.Certificate.Needs;
import dev.ironsieve.core.analysis.Certificate.Pair;
import dev.ironsieve.core.analysis.Certificate.Standing;
import dev.ironsieve.core.analysis.Certificate.Unmet;
import dev.ironsieve.core.order.Order;
import java.util.Arrays;

/**
 * Takes certificates along when the same rules are laid out anew: what a point proves of rules, any
 * connection of its class proves, and so does the point that holds that one in the other space.
 *
 * @param from the rules as they were laid out
 * @param anew the same rules, in the same order
 */
record Move(Order from, Order.Anew anew) {
  Order to() {
    return anew.order();
  }

  int slot(int slot) {
    return slot == Order.NONE ? Order.NONE : to().slotAt(from.position(slot));
  }

  private int[] slots(int[] slots) {
    return Arrays.stream(slots).map(this::slot).sorted().toArray();
  }

  private int[] point(int[] point) {
    return anew.points().apply(point);
  }

  Standing of(Standing standing) {
    return switch (standing) {
      case Standing.Decides s -> new Standing.Decides(point(s.point()));
      case Standing.Covered s ->
          new Standing.Covered(
              s.shadowed(),
              slots(s.causes()),
              s.minimality(),
              point(s.point()),
              slot(s.decidedBy()));
      case Standing.Empty s -> s;
      case Standing.PassedOver s -> s;
      case Standing.Undecided s -> s;
    };
  }

  Below of(Below below) {
    return switch (below) {
      case Below.Matters b -> new Below.Matters(point(b.point()), slot(b.next()));
      case Below.Redundant b ->
          new Below.Redundant(slots(b.causes()), b.minimality(), point(b.point()), slot(b.next()));
      case Below.NotAsked b -> b;
      case Below.Undecided b -> b;
    };
  }

  Pair of(Pair pair) {
    return switch (pair) {
      case Pair.Found p -> new Pair.Found(slot(p.other()), point(p.point()));
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
        slots(unmet.causes()),
        unmet.minimality());
  }
}
