package dev.ironsieve.core.model;

import dev.ironsieve.core.sets.IntSet;
import java.util.List;

/**
 * The facts of the pinned catalogue edition about one application that affect rules.
 *
 * @param name of the application
 * @param uses numbers of its values in the vocabulary
 * @param ports the usual ports of its servers
 * @param hosts names of its servers, exact or with a leading {@code *.}
 * @param needs names of applications that separate rules must allow for it to work
 * @param carries names of applications that are let through only inside its own connections
 * @param openedOnly those of its uses that can be told from each other only in opened connections
 */
public record ApplicationFact(
    String name,
    IntSet uses,
    List<ServiceLiteral> ports,
    List<String> hosts,
    List<String> needs,
    List<String> carries,
    IntSet openedOnly) {
  public ApplicationFact {
    Names.checkTitle("application", name);
    ports = List.copyOf(ports);
    hosts = List.copyOf(hosts);
    hosts.forEach(SitePattern::parse);
    needs = List.copyOf(needs);
    carries = List.copyOf(carries);
    if (uses.isEmpty() || !uses.containsAll(openedOnly)) {
      throw new InvalidModel(
          "application \"" + name + "\"",
          "uses, including all that show only in opened connections",
          uses.isEmpty() ? "none" : "others too");
    }
  }
}
