package dev.ironsieve.core.space;

import dev.ironsieve.core.parallel.Tasks;
import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.sets.Transport;
import dev.ironsieve.core.sets.TransportSet;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Collections;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Objects;
import java.util.Set;

/** Builds the axes of a {@link Space}: cuts each at the borders of all matches. */
final class AxesBuilder {
  private final Resolution resolution;
  private final Collection<ResolvedMatch> matches;
  private final List<EndpointAxis.Side> fromSides;
  private final List<EndpointAxis.Side> toSides;
  private final Set<IntSet> serviceSets = distinct();
  private final Set<IntSet> portSets = distinct();

  AxesBuilder(Resolution resolution, Collection<ResolvedMatch> matches) {
    this.resolution = resolution;
    this.matches = matches;
    fromSides = new ArrayList<>(matches.size());
    toSides = new ArrayList<>(matches.size());
    for (ResolvedMatch match : matches) {
      fromSides.add(new EndpointAxis.Side(match.fromZones(), match.from()));
      toSides.add(new EndpointAxis.Side(match.toZones(), match.to()));
      for (ResolvedMatch.Portion portion : match.portions()) {
        for (TransportSet.Rectangle part : portion.services().parts()) {
          serviceSets.add(part.services());
          portSets.add(part.sourcePorts());
        }
      }
    }
    resolution.concernedByNeeds().forEach(f -> serviceSets.add(resolution.usualServices(f)));
    if (portSets.stream().anyMatch(ports -> !ports.equals(Transport.ANY_PORT))) {
      serviceSets.add(Transport.WITH_PORTS);
    }
  }

  /** For sets that many rules share, each object once. */
  private static Set<IntSet> distinct() {
    return Collections.newSetFromMap(new IdentityHashMap<>());
  }

  /**
   * The axes by number.
   *
   * @param like a space whose axes are reused where they have the same classes; or null
   */
  Axis[] build(Space like) {
    Axis[] axes = new Axis[Space.TERMS + resolution.vocabularies().size()];
    Axis[] known = reusable(like, axes.length);
    // Axes know nothing of each other, and take most of the time of a space.
    Tasks.each(
        axes.length,
        axis ->
            axes[axis] =
                switch (axis) {
                  case Space.FROM -> EndpointAxis.of(resolution, fromSides, known[axis]);
                  case Space.TO -> EndpointAxis.of(resolution, toSides, known[axis]);
                  case Space.SERVICE ->
                      NumberAxis.of(Transport.ANY_SERVICE, serviceSets, known[axis]);
                  case Space.SOURCE_PORT ->
                      NumberAxis.of(Transport.ANY_PORT, portSets, known[axis]);
                  default -> symbols(axis - Space.TERMS, known[axis]);
                });
    return axes;
  }

  /** The axes of another space that may be reused, by number; null where none may. */
  private Axis[] reusable(Space like, int count) {
    Axis[] out = new Axis[count];
    if (like == null) {
      return out;
    }
    boolean sameZones = resolution.hasZonesOf(like.resolution);
    for (int axis = 0; axis < out.length; axis++) {
      boolean same =
          switch (axis) {
            case Space.FROM, Space.TO -> sameZones;
            case Space.SERVICE, Space.SOURCE_PORT -> true;
            default -> resolution.hasValuesOf(like.resolution, axis - Space.TERMS);
          };
      out[axis] = same && !like.axes[axis].isFull() ? like.axes[axis] : null;
    }
    return out;
  }

  private SymbolAxis symbols(int number, Axis known) {
    Set<IntSet> sets = distinct();
    sets.add(resolution.anyTerms().get(number));
    for (ResolvedMatch match : matches) {
      for (ResolvedMatch.Portion portion : match.portions()) {
        sets.add(portion.terms().get(number));
      }
    }
    switch (resolution.vocabularies().get(number).coordinate()) {
      case APPLICATION -> resolution.concernedByNeeds().forEach(fact -> sets.add(fact.uses()));
      case SITE ->
          resolution.concernedByNeeds().stream()
              .map(resolution::usualSites)
              .filter(Objects::nonNull)
              .forEach(sets::add);
      default -> {}
    }
    return SymbolAxis.of(resolution.vocabularies().get(number).values().size(), sets, known);
  }
}
