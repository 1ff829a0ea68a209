package dev.ironsieve.core.model;

import dev.ironsieve.core.sets.AddressRange;
import java.util.List;

/**
 * A part of the network behind the firewall's interfaces.
 *
 * @param networks the addresses that can occur in the zone; empty if it declares none, and then any
 *     address can
 */
public record Zone(String name, List<AddressRange> networks, String note) {
  public Zone {
    Names.checkObject("zone", name);
    networks = List.copyOf(networks);
    if (networks.size() > TermObject.MAX_MEMBERS) {
      throw new InvalidModel(
          "zone \"" + name + "\"",
          "at most " + TermObject.MAX_MEMBERS + " networks",
          networks.size() + "");
    }
    Names.checkNote(note);
  }
}
