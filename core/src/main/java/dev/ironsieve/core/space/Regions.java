package dev.ironsieve.core.space;

import dev.ironsieve.core.sets.Family;
import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.sets.Transport;
import dev.ironsieve.core.sets.TransportSet;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** The regions of a {@link Space}: sets of feasible connections as disjoint boxes. */
final class Regions {
  private final Space space;

  Regions(Space space) {
    this.space = space;
  }

  /** Everything feasible, as one box for each family. */
  List<Box> everything() {
    List<Box> out = new ArrayList<>();
    for (Family family : Family.values()) {
      IntSet[] sides = new IntSet[space.axes()];
      for (int axis = 0; axis < space.axes(); axis++) {
        sides[axis] = space.all(axis);
      }
      sides[Space.FROM] = space.from.family(family);
      sides[Space.TO] = space.to.family(family);
      if (!sides[Space.FROM].isEmpty() && !sides[Space.TO].isEmpty()) {
        out.add(new Box(sides));
      }
    }
    return out;
  }

  /** The feasible connections of a match; empty if there is no room to tell it apart. */
  Optional<List<Box>> of(ResolvedMatch match) {
    Optional<IntSet[]> from = space.from.codesIfRoom(match.fromZones(), match.from());
    Optional<IntSet[]> to = space.to.codesIfRoom(match.toZones(), match.to());
    if (from.isEmpty() || to.isEmpty()) {
      return Optional.empty();
    }
    List<Box> out = new ArrayList<>(2);
    for (ResolvedMatch.Portion portion : match.portions()) {
      if (!addBoxes(out, from.get(), to.get(), portion)) {
        return Optional.empty();
      }
    }
    return Optional.of(out);
  }

  /** False if there is no room left to tell the portion apart. */
  private boolean addBoxes(
      List<Box> out, IntSet[] fromCodes, IntSet[] toCodes, ResolvedMatch.Portion portion) {
    IntSet[] termCodes = new IntSet[space.terms.length];
    for (int i = 0; i < termCodes.length; i++) {
      Optional<IntSet> codes = space.terms[i].codesIfRoom(portion.terms().get(i));
      if (codes.isEmpty()) {
        return false;
      }
      termCodes[i] = codes.get();
      if (termCodes[i].isEmpty()) {
        return true;
      }
    }
    for (Family family : Family.values()) {
      IntSet fromSide = fromCodes[family.ordinal()];
      IntSet toSide = toCodes[family.ordinal()];
      if (!fromSide.isEmpty()
          && !toSide.isEmpty()
          && !addBoxes(out, fromSide, toSide, portion.services(), termCodes)) {
        return false;
      }
    }
    return true;
  }

  private boolean addBoxes(
      List<Box> out, IntSet from, IntSet to, TransportSet services, IntSet[] termCodes) {
    for (TransportSet.Rectangle part : services.parts()) {
      Optional<IntSet> serviceCodes = space.services.codesIfRoom(part.services());
      Optional<IntSet> portCodes = space.sourcePorts.codesIfRoom(part.sourcePorts());
      if (serviceCodes.isEmpty() || portCodes.isEmpty()) {
        return false;
      }
      boolean anyPort = portCodes.get().equals(space.sourcePorts.all());
      if (!anyPort && space.services.codesIfRoom(Transport.WITH_PORTS).isEmpty()) {
        return false;
      }
      if (serviceCodes.get().isEmpty() || portCodes.get().isEmpty()) {
        continue;
      }
      IntSet[] sides = new IntSet[space.axes()];
      sides[Space.FROM] = from;
      sides[Space.TO] = to;
      sides[Space.SERVICE] = serviceCodes.get();
      sides[Space.SOURCE_PORT] = portCodes.get();
      System.arraycopy(termCodes, 0, sides, Space.TERMS, termCodes.length);
      out.add(new Box(sides));
    }
    return true;
  }

  /**
   * A box without those of its points that no connection has: since the lowest source port stands
   * for all where a protocol has none, a box without it has only services with ports.
   */
  Optional<Box> feasible(Box box) {
    if (box.side(Space.SOURCE_PORT).contains(space.sourcePorts.all().min())) {
      return Optional.of(box);
    }
    IntSet left = box.side(Space.SERVICE).intersect(space.services.codes(Transport.WITH_PORTS));
    return left.isEmpty() ? Optional.empty() : Optional.of(box.with(Space.SERVICE, left));
  }
}
