package dev.ironsieve.core.sets;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;

/**
 * An immutable set of (service position, source port) pairs as a union of disjoint boxes. Source
 * ports count only for protocols that have ports. Operations are O(n·m) in the number of boxes,
 * which is 1 without source ports.
 */
public final class TransportSet {
  public static final TransportSet EMPTY = new TransportSet(List.of());
  public static final TransportSet ALL =
      new TransportSet(List.of(new Rectangle(Transport.ANY_SERVICE, Transport.ANY_PORT)));

  /**
   * All pairs of a service and a source port.
   *
   * @param services positions on the line of {@link Transport}
   * @param sourcePorts 0 to 65535
   */
  public record Rectangle(IntSet services, IntSet sourcePorts) {
    boolean isEmpty() {
      return services.isEmpty() || sourcePorts.isEmpty();
    }
  }

  private final List<Rectangle> parts;

  private TransportSet(List<Rectangle> parts) {
    this.parts = parts;
  }

  public static TransportSet of(IntSet services, IntSet sourcePorts) {
    Rectangle part = new Rectangle(services, onlyOnce(sourcePorts));
    return part.isEmpty() ? EMPTY : new TransportSet(List.of(part));
  }

  /** Disjoint boxes, none of them empty; equal sets have equal boxes. */
  public List<Rectangle> parts() {
    return parts;
  }

  public boolean isEmpty() {
    return parts.isEmpty();
  }

  public TransportSet union(TransportSet other) {
    if (isEmpty() || other.isEmpty()) {
      return isEmpty() ? other : this;
    }
    if (hasSameSourcePorts(other)) {
      Rectangle one = parts.getFirst();
      IntSet services = one.services.union(other.parts.getFirst().services);
      return new TransportSet(List.of(new Rectangle(services, one.sourcePorts)));
    }
    List<Rectangle> out = new ArrayList<>(other.minus(this).parts);
    out.addAll(parts);
    return new TransportSet(canonical(out));
  }

  public TransportSet minus(TransportSet other) {
    if (isEmpty() || other.isEmpty()) {
      return this;
    }
    if (hasSameSourcePorts(other)) {
      Rectangle one = parts.getFirst();
      return of(one.services.minus(other.parts.getFirst().services), one.sourcePorts);
    }
    List<Rectangle> left = parts;
    for (Rectangle hole : other.parts) {
      List<Rectangle> next = new ArrayList<>();
      for (Rectangle part : left) {
        IntSet touched = part.services.intersect(hole.services);
        addUnlessEmpty(next, new Rectangle(part.services.minus(hole.services), part.sourcePorts));
        addUnlessEmpty(next, new Rectangle(touched, part.sourcePorts.minus(hole.sourcePorts)));
      }
      left = next;
    }
    return new TransportSet(canonical(left));
  }

  /**
   * The shared object for every source port, which marks a space without classes of source ports.
   */
  private static IntSet onlyOnce(IntSet sourcePorts) {
    return sourcePorts.equals(Transport.ANY_PORT) ? Transport.ANY_PORT : sourcePorts;
  }

  /** Whether both are of one box, with the same source ports, which most are. */
  private boolean hasSameSourcePorts(TransportSet other) {
    return parts.size() == 1
        && other.parts.size() == 1
        && parts.getFirst().sourcePorts.equals(other.parts.getFirst().sourcePorts);
  }

  /**
   * Whether a connection is in the set. {@code detail} or {@code sourcePort} may be -1 for unknown;
   * what is unknown is in the set only where the set does not tell it apart.
   */
  public boolean contains(int protocol, int detail, int sourcePort) {
    for (Rectangle part : parts) {
      boolean service =
          detail >= 0
              ? part.services.contains(Transport.position(protocol, detail))
              : part.services.containsAll(Transport.whole(protocol));
      boolean source =
          sourcePort >= 0
              ? part.sourcePorts.contains(sourcePort)
              : part.sourcePorts.equals(Transport.ANY_PORT);
      if (service && source) {
        return true;
      }
    }
    return false;
  }

  private static void addUnlessEmpty(List<Rectangle> out, Rectangle part) {
    if (!part.isEmpty()) {
      out.add(part);
    }
  }

  /**
   * The one form in which a set is kept: every service in one box only, with all its source ports,
   * and no two boxes with the same source ports; by their services.
   *
   * @param parts disjoint
   */
  private static List<Rectangle> canonical(List<Rectangle> parts) {
    List<Rectangle> out = new ArrayList<>();
    for (Rectangle part : parts) {
      IntSet left = part.services;
      for (int i = 0; i < out.size() && !left.isEmpty(); i++) {
        Rectangle known = out.get(i);
        IntSet common = known.services.intersect(left);
        if (common.isEmpty()) {
          continue;
        }
        IntSet ports = known.sourcePorts.union(part.sourcePorts);
        IntSet rest = known.services.minus(common);
        out.set(i, new Rectangle(common, onlyOnce(ports)));
        if (!rest.isEmpty()) {
          out.add(i++, new Rectangle(rest, known.sourcePorts));
        }
        left = left.minus(common);
      }
      addUnlessEmpty(out, new Rectangle(left, part.sourcePorts));
    }
    List<Rectangle> joined = new ArrayList<>();
    for (Rectangle part : out) {
      int same = 0;
      while (same < joined.size() && !joined.get(same).sourcePorts.equals(part.sourcePorts)) {
        same++;
      }
      if (same == joined.size()) {
        joined.add(part);
      } else {
        Rectangle known = joined.get(same);
        joined.set(same, new Rectangle(known.services.union(part.services), known.sourcePorts));
      }
    }
    joined.sort(Comparator.comparingInt(part -> part.services.min()));
    return List.copyOf(joined);
  }

  @Override
  public boolean equals(Object o) {
    return o instanceof TransportSet other && parts.equals(other.parts);
  }

  @Override
  public int hashCode() {
    return parts.hashCode();
  }

  @Override
  public String toString() {
    return parts.toString();
  }
}
