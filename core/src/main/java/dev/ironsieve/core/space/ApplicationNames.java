package dev.ironsieve.core.space;

import dev.ironsieve.core.model.ApplicationFact;
import dev.ironsieve.core.model.Names;
import dev.ironsieve.core.model.ServiceLiteral;
import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.sets.Transport;
import dev.ironsieve.core.sets.TransportSet;
import dev.ironsieve.core.vocabulary.SiteIndex;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;

/** Looks up the ports, sites and needs of applications by name. */
final class ApplicationNames {
  private final List<ApplicationFact> facts;
  private final IntSet all;
  private final Map<String, IntSet> uses; // by key
  private final Map<TransportSet, IntSet> byUsualPorts; // their uses
  private final Map<String, IntSet> usualServices; // by key
  private final Map<String, IntSet> usualSites = new HashMap<>(); // by key

  /**
   * @param facts empty if nothing is known
   * @param all numbers of all values of the vocabulary; null if there is none
   * @param sites what rules tell apart of sites; null if there is nothing
   */
  ApplicationNames(List<ApplicationFact> facts, IntSet all, SiteIndex sites) {
    this.facts = facts;
    this.all = all;
    uses = new HashMap<>();
    byUsualPorts = new LinkedHashMap<>();
    usualServices = new HashMap<>();
    facts.forEach(this::noteServices);
    noteSites(sites);
  }

  /** The same applications, where rules tell other sites apart. */
  ApplicationNames(ApplicationNames same, SiteIndex sites) {
    facts = same.facts;
    all = same.all;
    uses = same.uses;
    byUsualPorts = same.byUsualPorts;
    usualServices = same.usualServices;
    noteSites(sites);
  }

  private void noteServices(ApplicationFact fact) {
    TransportSet ports = TransportSet.EMPTY;
    IntSet services = IntSet.EMPTY;
    for (ServiceLiteral port : fact.ports()) {
      ports = ports.union(port.set());
      for (TransportSet.Rectangle part : port.set().parts()) {
        services = services.union(part.services());
      }
    }
    String key = Names.key(fact.name());
    uses.put(key, fact.uses());
    byUsualPorts.merge(ports, fact.uses(), IntSet::union);
    usualServices.put(key, services.isEmpty() ? Transport.ANY_SERVICE : services);
  }

  private void noteSites(SiteIndex sites) {
    for (ApplicationFact fact : sites == null ? List.<ApplicationFact>of() : facts) {
      IntSet at = sites.at(fact.hosts());
      if (!at.isEmpty()) {
        usualSites.put(Names.key(fact.name()), at);
      }
    }
  }

  List<ApplicationFact> facts() {
    return facts;
  }

  /** Numbers of all values; null if there is no vocabulary of applications. */
  IntSet all() {
    return all;
  }

  /** The uses of the applications that listen at the same ports, by these. */
  Map<TransportSet, IntSet> byUsualPorts() {
    return byUsualPorts;
  }

  /** Where an application usually listens; every service if that is not known. */
  IntSet usualServices(ApplicationFact fact) {
    return usualServices.get(Names.key(fact.name()));
  }

  /** Where an application is, as far as rules tell sites apart; null if that is not known. */
  IntSet usualSites(ApplicationFact fact) {
    return usualSites.get(Names.key(fact.name()));
  }

  /** The applications that need others or are needed. */
  List<ApplicationFact> concernedByNeeds() {
    Set<String> needed = new HashSet<>();
    facts.forEach(fact -> fact.needs().forEach(need -> needed.add(Names.key(need))));
    return facts.stream()
        .filter(fact -> !fact.needs().isEmpty() || needed.contains(Names.key(fact.name())))
        .toList();
  }

  /** Up to all that carry some uses, and then down to all that these carry. */
  IntSet notToldFrom(IntSet some) {
    IntSet up = some;
    for (IntSet before = IntSet.EMPTY; !before.equals(up); ) {
      before = up;
      for (ApplicationFact carrier : facts) {
        for (String name : carrier.carries()) {
          up = uses(name).intersects(up) ? up.union(carrier.uses()) : up;
        }
      }
    }
    IntSet down = up;
    for (IntSet before = IntSet.EMPTY; !before.equals(down); ) {
      before = down;
      for (ApplicationFact carrier : facts) {
        if (carrier.uses().intersects(before)) {
          for (String name : carrier.carries()) {
            down = down.union(uses(name));
          }
        }
      }
    }
    return down;
  }

  private IntSet uses(String application) {
    return uses.get(Names.key(application));
  }
}
