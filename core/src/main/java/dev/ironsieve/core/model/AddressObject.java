package dev.ironsieve.core.model;

import java.util.List;

/**
 * A named set of addresses.
 *
 * @param members literals and other address objects; at least one
 */
public record AddressObject(String name, List<AddressItem> members, String note) {
  public AddressObject {
    Names.checkObject("address", name);
    members = List.copyOf(members);
    TermObject.checkMembers("address", name, members);
    Names.checkNote(note);
  }
}
