package dev.ironsieve.core.space;

import dev.ironsieve.core.sets.AddressSet;
import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.sets.TransportSet;
import java.util.List;

/**
 * A rule's criteria with every name looked up.
 *
 * @param fromZones numbers of zones, in the order of {@link Resolution#zoneNames}
 * @param from addresses of the opening end, whether they occur in the zones or not
 * @param toZones numbers of zones
 * @param to addresses of the far end
 * @param services services with source ports
 * @param terms for each of {@link Resolution#vocabularies} the numbers of its values
 */
public record Match(
    IntSet fromZones,
    AddressSet from,
    IntSet toZones,
    AddressSet to,
    TransportSet services,
    List<IntSet> terms) {}
