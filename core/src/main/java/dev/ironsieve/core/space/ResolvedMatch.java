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
 * @param services what the services criterion holds for: any one of these
 * @param terms for each of {@link Resolution#vocabularies} the numbers of its values
 * @param portions services and terms together, disjoint; the rule holds for what is in one of them
 */
public record ResolvedMatch(
    IntSet fromZones,
    AddressSet from,
    IntSet toZones,
    AddressSet to,
    List<ServiceConjunct> services,
    List<IntSet> terms,
    List<Portion> portions) {

  /**
   * Services, of whatever application or of some only.
   *
   * @param applications numbers of values; null where it may be any, or not known
   */
  public record ServiceConjunct(TransportSet services, IntSet applications) {
    /** Every service. */
    public static final List<ServiceConjunct> ALL =
        List.of(new ServiceConjunct(TransportSet.ALL, null));
  }

  /**
   * @param terms for each vocabulary the numbers of its values
   */
  public record Portion(TransportSet services, List<IntSet> terms) {}
}
