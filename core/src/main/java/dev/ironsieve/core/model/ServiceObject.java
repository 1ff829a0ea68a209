package dev.ironsieve.core.model;

import java.util.List;

/**
 * A named set of services.
 *
 * @param members literals and other service objects; at least one
 */
public record ServiceObject(String name, List<ServiceItem> members, String note) {
  public ServiceObject {
    Names.checkObject("service", name);
    members = List.copyOf(members);
    if (members.isEmpty()) {
      throw new InvalidModel("service \"" + name + "\"", "at least one member", "none");
    }
    Names.checkNote(note);
  }
}
