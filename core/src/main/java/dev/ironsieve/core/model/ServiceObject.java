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
      throw new InvalidModel("service name", "a name that is not reserved", Names.quoted(name));
    }
    members = List.copyOf(members);
    TermObject.checkMembers("service", name, members);
    if (members.contains(new ServiceItem.UsualPorts())) {
      throw new InvalidModel(
          "service \"" + name + "\"",
          "services; only a rule can use usual ports",
          ServiceItem.UsualPorts.TEXT);
    }
    Names.checkNote(note);
  }
}
