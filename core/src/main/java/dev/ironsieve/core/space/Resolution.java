package dev.ironsieve.core.space;

import dev.ironsieve.core.model.AddressItem;
import dev.ironsieve.core.model.ApplicationFact;
import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.Names;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Vocabulary;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.sets.Address;
import dev.ironsieve.core.sets.AddressSet;
import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.sets.TransportSet;
import dev.ironsieve.core.vocabulary.SiteIndex;
import dev.ironsieve.core.vocabulary.ValueFinder;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;

/**
 * Resolves the names in rules into numbers, addresses and services. Equal criteria give the same
 * set, not merely an equal. Several threads may ask at once.
 */
public final class Resolution {
  private final ZoneNames zones;
  private final AddressNames addresses;
  private final TermNames terms;
  private final ApplicationNames applications;
  private final ServiceNames services;
  private final Map<IntSet, IntSet> sharedUses; // of applications; each set once
  private final Map<Value, IntSet> known = new ConcurrentHashMap<>();

  /** A rulebase without zones is read as having one zone without a name that holds everything. */
  public Resolution(Rulebase rulebase) {
    this(rulebase, null, null);
  }

  /**
   * @param day from which on times count; null for ever
   */
  public Resolution(Rulebase rulebase, LocalDate day) {
    this(rulebase, null, day);
  }

  /**
   * @param like of another state of the rulebase; what means the same in both is the same set here
   *     and there, and the same times count
   */
  public Resolution(Rulebase rulebase, Resolution like) {
    this(rulebase, like, like.day());
  }

  private Resolution(Rulebase rulebase, Resolution like, LocalDate day) {
    zones = new ZoneNames(rulebase.zones(), like == null ? null : like.zones);
    addresses = AddressNames.of(rulebase, like == null ? null : like.addresses);
    terms = new TermNames(rulebase.vocabularies(), like == null ? null : like.terms, day);
    boolean same = like != null && terms.haveNamesOf(like.terms, Coordinate.APPLICATION);
    if (!same) {
      applications = applications(rulebase);
    } else if (terms.haveNamesOf(like.terms, Coordinate.SITE)) {
      applications = like.applications;
    } else {
      applications = new ApplicationNames(like.applications, sites(rulebase));
    }
    services = ServiceNames.of(rulebase.services(), applications, same ? like.services : null);
    sharedUses = same ? like.sharedUses : new ConcurrentHashMap<>();
  }

  private ApplicationNames applications(Rulebase rulebase) {
    Integer place = terms.place(Coordinate.APPLICATION);
    return place == null
        ? new ApplicationNames(List.of(), null, null)
        : new ApplicationNames(
            terms.vocabularies().get(place).applications(),
            terms.any().get(place),
            sites(rulebase));
  }

  private static SiteIndex sites(Rulebase rulebase) {
    return rulebase
        .vocabulary(Coordinate.SITE)
        .map(vocabulary -> new SiteIndex(vocabulary.values()))
        .orElse(null);
  }

  /** Whether zones and values are those of another state, so that sets of both can be compared. */
  public boolean tellsApartAsIn(Resolution other) {
    return zones.areThoseOf(other.zones) && terms.haveValuesOf(other.terms);
  }

  /** Whether zones, and the addresses in them, are those of another state. */
  boolean hasZonesOf(Resolution like) {
    return zones.areThoseOf(like.zones);
  }

  /** Whether the values of a vocabulary are those of another state. */
  boolean hasValuesOf(Resolution like, int number) {
    return terms.haveValuesOf(like.terms, number);
  }

  /**
   * The rules that use a name, directly or through other objects, with other members in another
   * state of the rulebase with the same zones and values. O(rules) if there are such names.
   *
   * @return their ids; names that exist in one state only are ignored
   */
  public Set<String> sayingOthers(List<Rule> rules, Resolution before) {
    Set<String> otherAddresses = addresses.changedFrom(before.addresses);
    Set<String> otherServices = services.changedFrom(before.services);
    Map<Coordinate, Set<String>> otherTerms = terms.changedFrom(before.terms);
    Set<String> out = new HashSet<>();
    if (otherAddresses.isEmpty() && otherServices.isEmpty() && otherTerms.isEmpty()) {
      return out;
    }
    for (Rule rule : rules) {
      if (addresses.mentions(rule.fromAddresses(), otherAddresses)
          || addresses.mentions(rule.toAddresses(), otherAddresses)
          || services.mentions(rule.services(), otherServices)
          || TermNames.mentions(rule, otherTerms)) {
        out.add(rule.id());
      }
    }
    return out;
  }

  /** Names of the zones by number; a single empty name if the rulebase has no zones. */
  public List<String> zoneNames() {
    return zones.names();
  }

  /** The addresses that can occur in zone {@code number}. */
  public AddressSet networks(int number) {
    return zones.networks(number);
  }

  /** The zone's number, or -1 for null and for names that no zone has. */
  public int zoneNumber(String name) {
    return zones.number(name);
  }

  /**
   * The zone that an address tells: the one whose declared networks hold it most narrowly, else the
   * only one that declares none; null if there is no such zone.
   */
  public String zoneOf(Address address) {
    return zones.of(address);
  }

  /** The addresses that a criterion stands for. */
  public AddressSet addresses(Criterion<AddressItem> criterion) {
    return addresses.set(criterion);
  }

  /** The facts about applications; empty if there are none. */
  public List<ApplicationFact> applications() {
    return applications.facts();
  }

  /** The applications that need others or are needed. */
  public List<ApplicationFact> concernedByNeeds() {
    return applications.concernedByNeeds();
  }

  /**
   * The sites where an application is, as far as rules tell them apart; null if that is not known.
   */
  public IntSet usualSites(ApplicationFact fact) {
    return applications.usualSites(fact);
  }

  /** Where an application usually listens; every service if that is not known. */
  public IntSet usualServices(ApplicationFact fact) {
    return applications.usualServices(fact);
  }

  /** The vocabularies, in the order of their axes. */
  public List<Vocabulary> vocabularies() {
    return terms.vocabularies();
  }

  /** For each vocabulary the numbers of all its values, which a rule without criteria matches. */
  public List<IntSet> anyTerms() {
    return terms.any();
  }

  /** From which day on times count; null for ever. */
  public LocalDate day() {
    return terms.day();
  }

  /** Whether the time of a connection is not before the day from which times count. */
  public boolean counts(Connection connection) {
    for (int i = 0; i < vocabularies().size(); i++) {
      String said = connection.terms().get(vocabularies().get(i).coordinate());
      int value = valueNumber(i, said);
      if (value >= 0 && counting(i, value) != value) {
        return false;
      }
    }
    return true;
  }

  /** The value that stands for a past time; for others the value itself. */
  int counting(int vocabulary, int value) {
    return terms.counting(vocabulary, value);
  }

  /** Finds values of a coordinate; none if there is no vocabulary of it. */
  public Optional<ValueFinder> finder(Coordinate coordinate) {
    return terms.finder(coordinate);
  }

  /** The name of the address object that is just these addresses; empty if there is none. */
  Optional<String> addressesCalled(AddressSet addresses) {
    return this.addresses.nameOf(addresses);
  }

  /** Whether there is an address object, or a set of addresses of a feed, with this name. */
  public boolean hasAddress(String name) {
    return addresses.has(name);
  }

  /** The services of an object. */
  public TransportSet servicesOf(String name) {
    return services.of(name);
  }

  /** Whether there is a service object with this name. */
  public boolean hasService(String name) {
    return services.members(Names.key(name)) != null;
  }

  /** Whether a vocabulary of the coordinate has a value of exactly this name. */
  public boolean hasValue(Coordinate coordinate, String name) {
    return terms.hasValue(coordinate, name);
  }

  /**
   * The number of a value of the {@code number}th vocabulary, or -1 for null and for names that no
   * value has.
   */
  public int valueNumber(int number, String name) {
    return terms.number(number, name);
  }

  /** See {@link TermNames#valuesIn}. */
  int[] valuesIn(Resolution other, int vocabulary, List<Rule> rules) {
    return terms.valuesIn(other.terms, vocabulary, rules);
  }

  /**
   * The values that a connection may have of which it is known only at which host it is, or of
   * which application, given the one that it has in truth: those whose names are alike up to the
   * first slash, or the first colon. An application that others carry is not told from these, nor
   * from what else they carry. The first time O(values + applications · carried), then O(1).
   */
  public IntSet known(int vocabulary, Coordinate coordinate, int value) {
    return known.computeIfAbsent(
        new Value(vocabulary, value),
        key -> {
          IntSet own = terms.sameWhole(vocabulary, coordinate, value);
          return coordinate == Coordinate.APPLICATION ? applications.notToldFrom(own) : own;
        });
  }

  /** A value of a vocabulary, both by their number. */
  private record Value(int vocabulary, int number) {}

  /**
   * The groups of sites that look alike in sealed connections: the values of each host that rules
   * tell apart by path.
   */
  public List<IntSet> sitesAlike() {
    return terms.sitesAlike();
  }

  public ResolvedMatch match(Rule rule) {
    List<ResolvedMatch.ServiceConjunct> conjunct = services.set(rule.services());
    List<IntSet> values = terms.sets(rule);
    return new ResolvedMatch(
        zones.set(rule.fromZones()),
        addresses.set(rule.fromAddresses()),
        zones.set(rule.toZones()),
        addresses.set(rule.toAddresses()),
        conjunct,
        values,
        portions(conjunct, values));
  }

  private List<ResolvedMatch.Portion> portions(
      List<ResolvedMatch.ServiceConjunct> services, List<IntSet> values) {
    List<ResolvedMatch.Portion> out = new ArrayList<>(services.size());
    for (ResolvedMatch.ServiceConjunct conjunct : services) {
      if (conjunct.applications() == null) {
        out.add(new ResolvedMatch.Portion(conjunct.services(), values));
        continue;
      }
      int place = terms.place(Coordinate.APPLICATION);
      IntSet both = values.get(place).intersect(conjunct.applications());
      if (!both.isEmpty()) {
        List<IntSet> narrowed = new ArrayList<>(values);
        IntSet known = sharedUses.putIfAbsent(both, both);
        narrowed.set(place, known == null ? both : known);
        out.add(new ResolvedMatch.Portion(conjunct.services(), List.copyOf(narrowed)));
      }
    }
    return List.copyOf(out);
  }
}
