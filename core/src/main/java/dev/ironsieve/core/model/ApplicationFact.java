package dev.ironsieve.core.model;

import dev.ironsieve.core.sets.IntSet;
import java.util.List;

/**
 * What the pinned edition of the catalogue says of one application, as far as rules hang on it.
 *
 * @param name of the application
 * @param uses numbers of the vocabulary's values that are its uses
 * @param ports where it usually listens
 * @param hosts names of its servers, exact or with a leading {@code *.}
 * @param needs names of applications that must be allowed by rules of their own for it to work
 * @param carries names of applications that are let through inside its own connections only
 * @param openedOnly those of its uses that are told apart from each other only where a connection
 *     is opened
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
          "uses, among them all that are told apart only where a connection is opened",
          uses.isEmpty() ? "none" : "others too");
    }
  }
}
