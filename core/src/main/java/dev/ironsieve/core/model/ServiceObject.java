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
    if (Names.key(name).equals(ServiceItem.UsualPorts.TEXT)) {
      throw new InvalidModel(
          "service name", "another name than that of what rules can say", Names.quoted(name));
    }
    members = List.copyOf(members);
    TermObject.checkMembers("service", name, members);
    if (members.contains(new ServiceItem.UsualPorts())) {
      throw new InvalidModel(
          "service \"" + name + "\"",
          "services of its own; only a rule can say usual ports",
          ServiceItem.UsualPorts.TEXT);
    }
    Names.checkNote(note);
  }
}
