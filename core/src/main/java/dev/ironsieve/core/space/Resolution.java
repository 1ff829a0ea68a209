package dev.ironsieve.core.space;

import dev.ironsieve.core.model.AddressItem;
import dev.ironsieve.core.model.AddressObject;
import dev.ironsieve.core.model.ApplicationFact;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.Feed;
import dev.ironsieve.core.model.FeedSet;
import dev.ironsieve.core.model.Names;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Rulebase;
import dev.ironsieve.core.model.ServiceItem;
import dev.ironsieve.core.model.ServiceLiteral;
import dev.ironsieve.core.model.ServiceObject;
import dev.ironsieve.core.model.SiteIndex;
import dev.ironsieve.core.model.ValueFinder;
import dev.ironsieve.core.model.Vocabulary;
import dev.ironsieve.core.model.Zone;
import dev.ironsieve.core.sets.Address;
import dev.ironsieve.core.sets.AddressRange;
import dev.ironsieve.core.sets.AddressSet;
import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.sets.Transport;
import dev.ironsieve.core.sets.TransportSet;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.BiPredicate;
import java.util.function.Function;

/**
 * Looks up the names that rules mention. Equal criteria give the same set, not merely an equal.
 * Several threads may ask at once.
 */
public final class Resolution {
  private static final ServiceItem USUAL_PORTS = new ServiceItem.UsualPorts();

  private final List<String> zoneNames;
  private final List<AddressSet> zoneNetworks;
  private final List<List<AddressRange>> declared = new ArrayList<>(); // by zone
  private final IntSet allZones;
  private final Map<String, Integer> zoneNumbers = new HashMap<>();
  private final Map<String, Integer> zoneNumbersAsWritten = new HashMap<>();
  private final Map<String, AddressObject> addressObjects = new HashMap<>();
  private final Map<String, AddressSet> fed = new HashMap<>(); // sets of feeds
  private final Map<String, ServiceObject> serviceObjects = new HashMap<>();
  private final Map<Criterion<String>, IntSet> zoneSets;
  private final Found<AddressItem, AddressSet> addressSets;
  private final Found<ServiceItem, List<Match.Traffic>> serviceSets;
  private final Map<TransportSet, IntSet> byUsualPorts = new LinkedHashMap<>(); // applications
  private final Map<IntSet, IntSet> sharedApplications;
  private final Map<String, IntSet> usesByName = new HashMap<>(); // by application
  private final Map<String, IntSet> usualServices = new HashMap<>(); // by application
  private final Map<String, IntSet> usualSites = new HashMap<>(); // by application

  private final List<Vocabulary> vocabularies;
  private final Map<Coordinate, Integer> vocabularyNumbers = new EnumMap<>(Coordinate.class);
  private final List<Map<String, IntSet>> meanings = new ArrayList<>();
  private final List<Map<String, Integer>> values = new ArrayList<>(); // as they are written
  private final List<ValueFinder> finders = new ArrayList<>(); // by vocabulary
  private final List<Map<Criterion<String>, IntSet>> termSets = new ArrayList<>();
  private final List<IntSet> anyTerms;

  /**
   * What criteria stand for, as far as it was asked; what has no name in it is the same in every
   * state.
   */
  private record Found<T, S>(Map<Criterion<T>, S> named, Map<Criterion<T>, S> others) {
    Found() {
      this(new ConcurrentHashMap<>(), new ConcurrentHashMap<>());
    }

    S of(Criterion<T> asked, boolean isNamed, Function<Criterion<T>, S> find) {
      return (isNamed ? named : others).computeIfAbsent(asked, find);
    }

    /** The same for a state in which some names mean something else. */
    Found<T, S> without(Set<String> names, BiPredicate<List<T>, Set<String>> mentions) {
      if (names.isEmpty()) {
        return this;
      }
      Map<Criterion<T>, S> kept = new ConcurrentHashMap<>();
      named.forEach(
          (asked, set) -> {
            if (!mentions.test(asked.items(), names) && !mentions.test(asked.except(), names)) {
              kept.put(asked, set);
            }
          });
      return new Found<>(kept, others);
    }
  }

  /** A rulebase without zones is read as having one zone without a name that holds everything. */
  public Resolution(Rulebase rulebase) {
    this(rulebase, null);
  }

  /**
   * @param like of another state of the rulebase, or null; what means the same in both is the same
   *     set here and there
   */
  public Resolution(Rulebase rulebase, Resolution like) {
    List<String> names = new ArrayList<>();
    List<AddressSet> networks = new ArrayList<>();
    for (Zone zone : rulebase.zones()) {
      zoneNumbers.put(Names.key(zone.name()), names.size());
      zoneNumbersAsWritten.put(zone.name(), names.size());
      names.add(zone.name());
      declared.add(zone.networks());
      networks.add(zone.networks().isEmpty() ? AddressSet.ALL : AddressSet.of(zone.networks()));
    }
    if (names.isEmpty()) {
      names.add("");
      networks.add(AddressSet.ALL);
    }
    zoneNames = List.copyOf(names);
    zoneNetworks = List.copyOf(networks);
    boolean sameZones =
        like != null && zoneNames.equals(like.zoneNames) && zoneNetworks.equals(like.zoneNetworks);
    allZones = sameZones ? like.allZones : IntSet.range(0, names.size() - 1);
    zoneSets = sameZones ? like.zoneSets : new ConcurrentHashMap<>();
    rulebase.addresses().forEach(o -> addressObjects.put(Names.key(o.name()), o));
    for (Feed feed : rulebase.feeds()) {
      for (FeedSet set : feed.sets()) {
        if (set instanceof FeedSet.Addresses addresses) {
          fed.put(Names.key(set.name()), addresses.addresses());
        }
      }
    }
    rulebase.services().forEach(o -> serviceObjects.put(Names.key(o.name()), o));
    addressSets =
        like == null
            ? new Found<>()
            : like.addressSets.without(otherAddresses(like), Resolution::mentionsAddress);
    vocabularies = rulebase.vocabularies();
    List<IntSet> any = new ArrayList<>();
    for (Vocabulary vocabulary : vocabularies) {
      int number = any.size();
      Resolution sameValues = hasValues(like, number, vocabulary) ? like : null;
      Resolution same =
          sameValues != null && like.vocabularies.get(number).equals(vocabulary) ? like : null;
      vocabularyNumbers.put(vocabulary.coordinate(), number);
      any.add(
          sameValues == null
              ? IntSet.range(0, vocabulary.values().size() - 1)
              : like.anyTerms.get(number));
      values.add(sameValues == null ? numbers(vocabulary) : like.values.get(number));
      finders.add(sameValues == null ? new ValueFinder(vocabulary) : like.finders.get(number));
      meanings.add(same == null ? vocabulary.meanings() : like.meanings.get(number));
      termSets.add(same == null ? new ConcurrentHashMap<>() : like.termSets.get(number));
    }
    boolean sameTerms = like != null && any.size() == like.anyTerms.size();
    for (int number = 0; sameTerms && number < any.size(); number++) {
      sameTerms = any.get(number) == like.anyTerms.get(number);
    }
    anyTerms = sameTerms ? like.anyTerms : List.copyOf(any);
    boolean sameApplications = like != null && hasVocabularyOf(like, Coordinate.APPLICATION);
    sharedApplications = sameApplications ? like.sharedApplications : new ConcurrentHashMap<>();
    serviceSets =
        sameApplications
            ? like.serviceSets.without(otherServices(like), Resolution::mentionsService)
            : new Found<>();
    if (sameApplications) {
      usesByName.putAll(like.usesByName);
      byUsualPorts.putAll(like.byUsualPorts);
      usualServices.putAll(like.usualServices);
    } else {
      applications().forEach(this::noteUsualServices);
    }
    if (sameApplications && hasVocabularyOf(like, Coordinate.SITE)) {
      usualSites.putAll(like.usualSites);
    } else {
      rulebase
          .vocabulary(Coordinate.SITE)
          .map(vocabulary -> new SiteIndex(vocabulary.values()))
          .ifPresent(sites -> applications().forEach(fact -> noteUsualSites(fact, sites)));
    }
  }

  /** Whether zones and values are those of another state, so that sets of both can be compared. */
  public boolean tellsApartAsIn(Resolution other) {
    return allZones == other.allZones && anyTerms == other.anyTerms;
  }

  /**
   * The rules that mention a name, themselves or through others, that is told in other words in
   * another state of the rulebase with the same zones and values. O(rules) if there are such names.
   *
   * @return their ids; a name that is only in one of both is not looked at
   */
  public Set<String> sayingOthers(List<Rule> rules, Resolution before) {
    Set<String> addresses = otherAddresses(before);
    addresses.retainAll(allAddresses().keySet());
    addresses.retainAll(before.allAddresses().keySet());
    Set<String> services = otherServices(before);
    services.retainAll(serviceObjects.keySet());
    services.retainAll(before.serviceObjects.keySet());
    Map<Coordinate, Set<String>> terms = otherTerms(before);
    Set<String> out = new HashSet<>();
    if (addresses.isEmpty() && services.isEmpty() && terms.isEmpty()) {
      return out;
    }
    for (Rule rule : rules) {
      if (mentionsAddress(rule.fromAddresses(), addresses)
          || mentionsAddress(rule.toAddresses(), addresses)
          || mentionsService(rule.services().items(), services)
          || mentionsService(rule.services().except(), services)
          || mentionsTerm(rule, terms)) {
        out.add(rule.id());
      }
    }
    return out;
  }

  private Map<Coordinate, Set<String>> otherTerms(Resolution before) {
    Map<Coordinate, Set<String>> out = new EnumMap<>(Coordinate.class);
    for (int number = 0; number < meanings.size(); number++) {
      if (meanings.get(number) != before.meanings.get(number)) {
        out.put(
            vocabularies.get(number).coordinate(),
            differing(meanings.get(number), before.meanings.get(number)));
      }
    }
    out.values().removeIf(Set::isEmpty);
    return out;
  }

  private static boolean mentionsTerm(Rule rule, Map<Coordinate, Set<String>> keys) {
    for (Map.Entry<Coordinate, Set<String>> other : keys.entrySet()) {
      for (String name : rule.term(other.getKey()).mentioned()) {
        if (other.getValue().contains(Names.key(name))) {
          return true;
        }
      }
    }
    return false;
  }

  private Set<String> otherAddresses(Resolution before) {
    Set<String> out = differing(allAddresses(), before.allAddresses());
    addHolders(out, addressObjects, (object, keys) -> mentionsAddress(object.members(), keys));
    return out;
  }

  private Map<String, Object> allAddresses() {
    Map<String, Object> out = new HashMap<>(addressObjects);
    out.putAll(fed);
    return out;
  }

  private Set<String> otherServices(Resolution before) {
    Set<String> out = differing(serviceObjects, before.serviceObjects);
    addHolders(out, serviceObjects, (object, keys) -> mentionsService(object.members(), keys));
    return out;
  }

  /** Keys that stand for something else, or are only in one of both. */
  private static <T> Set<String> differing(Map<String, T> here, Map<String, T> there) {
    Set<String> out = new HashSet<>();
    here.forEach(
        (key, is) -> {
          if (!is.equals(there.get(key))) {
            out.add(key);
          }
        });
    there.keySet().stream().filter(key -> !here.containsKey(key)).forEach(out::add);
    return out;
  }

  /** Adds the objects that hold some of those that are named already, as far up as that goes. */
  private static <T> void addHolders(
      Set<String> keys, Map<String, T> objects, BiPredicate<T, Set<String>> holds) {
    int before = -1;
    while (before != keys.size() && !keys.isEmpty()) {
      before = keys.size();
      objects.forEach(
          (key, object) -> {
            if (!keys.contains(key) && holds.test(object, keys)) {
              keys.add(key);
            }
          });
    }
  }

  private static boolean mentionsAddress(Criterion<AddressItem> asked, Set<String> keys) {
    return mentionsAddress(asked.items(), keys) || mentionsAddress(asked.except(), keys);
  }

  private static boolean mentionsAddress(List<AddressItem> items, Set<String> keys) {
    for (AddressItem item : items) {
      if (item instanceof AddressItem.Named named && keys.contains(Names.key(named.name()))) {
        return true;
      }
    }
    return false;
  }

  private static boolean mentionsService(List<ServiceItem> items, Set<String> keys) {
    for (ServiceItem item : items) {
      if (item instanceof ServiceItem.Named named && keys.contains(Names.key(named.name()))) {
        return true;
      }
    }
    return false;
  }

  private static Map<String, Integer> numbers(Vocabulary vocabulary) {
    Map<String, Integer> numbers = HashMap.newHashMap(vocabulary.values().size());
    for (String value : vocabulary.values()) {
      numbers.put(value, numbers.size());
    }
    return numbers;
  }

  private static boolean hasValues(Resolution like, int number, Vocabulary vocabulary) {
    if (like == null || number >= like.vocabularies.size()) {
      return false;
    }
    Vocabulary other = like.vocabularies.get(number);
    return other.coordinate() == vocabulary.coordinate()
        && other.values().equals(vocabulary.values());
  }

  /** Whether names of a coordinate stand for the same sets as in another state, or in none. */
  private boolean hasVocabularyOf(Resolution like, Coordinate coordinate) {
    Integer here = vocabularyNumbers.get(coordinate);
    Integer there = like.vocabularyNumbers.get(coordinate);
    return here == null || there == null
        ? here == there
        : termSets.get(here) == like.termSets.get(there);
  }

  private void noteUsualServices(ApplicationFact fact) {
    TransportSet ports = TransportSet.EMPTY;
    IntSet services = IntSet.EMPTY;
    for (ServiceLiteral port : fact.ports()) {
      ports = ports.union(port.set());
      for (TransportSet.Part part : port.set().parts()) {
        services = services.union(part.services());
      }
    }
    usesByName.put(Names.key(fact.name()), fact.uses());
    byUsualPorts.merge(ports, fact.uses(), IntSet::union);
    usualServices.put(
        Names.key(fact.name()), services.isEmpty() ? Transport.ANY_SERVICE : services);
  }

  private void noteUsualSites(ApplicationFact fact, SiteIndex sites) {
    if (!fact.hosts().isEmpty()) {
      IntSet at = sites.at(fact.hosts());
      if (!at.isEmpty()) {
        usualSites.put(Names.key(fact.name()), at);
      }
    }
  }

  /**
   * The sites where an application is, as far as rules tell them apart; null if that is not known.
   */
  public IntSet usualSites(ApplicationFact fact) {
    return usualSites.get(Names.key(fact.name()));
  }

  /** Where an application usually listens; every service if that is not known. */
  public IntSet usualServices(ApplicationFact fact) {
    return usualServices.get(Names.key(fact.name()));
  }

  /** Whether zones, and the addresses in them, are those of another state. */
  boolean hasZonesOf(Resolution like) {
    return allZones == like.allZones;
  }

  /** Whether the values of a vocabulary are those of another state. */
  boolean hasValuesOf(Resolution like, int number) {
    return anyTerms.get(number) == like.anyTerms.get(number);
  }

  /** Names of the zones by number; a single empty name if the rulebase has no zones. */
  public List<String> zoneNames() {
    return zoneNames;
  }

  /** The addresses that can occur in zone {@code number}. */
  public AddressSet networks(int number) {
    return zoneNetworks.get(number);
  }

  /** The zone's number, or -1 for null and for names that no zone has. */
  public int zoneNumber(String name) {
    if (zoneNumbers.isEmpty()) {
      return 0;
    }
    if (name == null) {
      return -1;
    }
    Integer asWritten = zoneNumbersAsWritten.get(name);
    return asWritten != null ? asWritten : zoneNumbers.getOrDefault(Names.key(name), -1);
  }

  /**
   * The zone that an address tells: the one whose declared networks hold it most narrowly, else the
   * only one that declares none; null if there is no such zone.
   */
  public String zoneOf(Address address) {
    String best = null;
    int bestLength = -1;
    String open = null;
    int opens = 0;
    for (int zone = 0; zone < zoneNames.size(); zone++) {
      if (zoneNetworks.get(zone).isAll()) {
        open = zoneNames.get(zone);
        opens++;
        continue;
      }
      for (AddressRange network : declared.get(zone)) {
        if (network.contains(address)) {
          int length = Math.max(0, network.prefixLength());
          if (length > bestLength) {
            best = zoneNames.get(zone);
            bestLength = length;
          }
        }
      }
    }
    String found = best == null && opens == 1 ? open : best;
    return found == null || found.isEmpty() ? null : found;
  }

  /** Finds values of a coordinate; none if there is no vocabulary of it. */
  public Optional<ValueFinder> finder(Coordinate coordinate) {
    return Optional.ofNullable(vocabularyNumbers.get(coordinate)).map(finders::get);
  }

  /** Whether a vocabulary of the coordinate has a value of exactly this name. */
  public boolean hasValue(Coordinate coordinate, String name) {
    Integer number = vocabularyNumbers.get(coordinate);
    return number != null && values.get(number).containsKey(name);
  }

  /** What is known of applications; empty if nothing is. */
  public List<ApplicationFact> applications() {
    Integer number = vocabularyNumbers.get(Coordinate.APPLICATION);
    return number == null ? List.of() : vocabularies.get(number).applications();
  }

  /** The applications that need others or are needed. */
  public List<ApplicationFact> concernedByNeeds() {
    Set<String> needed = new HashSet<>();
    applications().forEach(fact -> fact.needs().forEach(need -> needed.add(Names.key(need))));
    return applications().stream()
        .filter(fact -> !fact.needs().isEmpty() || needed.contains(Names.key(fact.name())))
        .toList();
  }

  public Match match(Rule rule) {
    List<Match.Traffic> services = services(rule.services());
    List<IntSet> terms = terms(rule);
    return new Match(
        zones(rule.fromZones()),
        addresses(rule.fromAddresses()),
        zones(rule.toZones()),
        addresses(rule.toAddresses()),
        services,
        terms,
        portions(services, terms));
  }

  private List<Match.Portion> portions(List<Match.Traffic> services, List<IntSet> terms) {
    List<Match.Portion> out = new ArrayList<>(services.size());
    for (Match.Traffic traffic : services) {
      if (traffic.applications() == null) {
        out.add(new Match.Portion(traffic.services(), terms));
        continue;
      }
      int number = vocabularyNumbers.get(Coordinate.APPLICATION);
      IntSet both = terms.get(number).intersect(traffic.applications());
      if (!both.isEmpty()) {
        List<IntSet> narrowed = new ArrayList<>(terms);
        IntSet known = sharedApplications.putIfAbsent(both, both);
        narrowed.set(number, known == null ? both : known);
        out.add(new Match.Portion(traffic.services(), List.copyOf(narrowed)));
      }
    }
    return List.copyOf(out);
  }

  private List<IntSet> terms(Rule rule) {
    if (rule.terms().isEmpty()) {
      return anyTerms;
    }
    List<IntSet> out = new ArrayList<>(anyTerms);
    rule.terms()
        .forEach(
            (coordinate, criterion) -> {
              int number = vocabularyNumbers.get(coordinate);
              out.set(
                  number,
                  termSets
                      .get(number)
                      .computeIfAbsent(criterion, c -> values(number, anyTerms.get(number), c)));
            });
    return List.copyOf(out);
  }

  private IntSet values(int vocabulary, IntSet any, Criterion<String> criterion) {
    Map<String, IntSet> known = meanings.get(vocabulary);
    IntSet in = criterion.items().isEmpty() ? any : IntSet.EMPTY; // every value listed is not any
    for (String item : criterion.items()) {
      in = in.union(known.get(Names.key(item)));
    }
    for (String item : criterion.except()) {
      in = in.minus(known.get(Names.key(item)));
    }
    return in;
  }

  /** What a rule that asks for no term matches; these objects stand for nothing else. */
  public List<IntSet> anyTerms() {
    return anyTerms;
  }

  /** What else can be known of a connection, in the order of the axes. */
  public List<Vocabulary> vocabularies() {
    return vocabularies;
  }

  /**
   * For each value of a vocabulary, one of another state of it that rules mean whenever they mean
   * this one; O(values + what the names hold).
   *
   * @param rules whose names are known here and there, where they mean the same
   * @return -1 for a value without such another; null if both are the same vocabulary
   */
  int[] valuesIn(Resolution other, int vocabulary, List<Rule> rules) {
    Vocabulary here = vocabularies.get(vocabulary);
    Vocabulary there = other.vocabularies.get(vocabulary);
    if (here.equals(there)) {
      return null;
    }
    Set<String> names = new LinkedHashSet<>();
    for (Rule rule : rules) {
      rule.term(here.coordinate()).mentioned().forEach(name -> names.add(Names.key(name)));
    }
    Map<List<Integer>, Integer> known = new HashMap<>();
    List<List<Integer>> holding = other.holding(vocabulary, names);
    for (int value = holding.size() - 1; value >= 0; value--) {
      known.put(holding.get(value), value);
    }
    return holding(vocabulary, names).stream()
        .mapToInt(held -> known.getOrDefault(held, -1))
        .toArray();
  }

  /** For each value the numbers of the names that hold it. */
  private List<List<Integer>> holding(int vocabulary, Set<String> names) {
    List<List<Integer>> out = new ArrayList<>();
    vocabularies.get(vocabulary).values().forEach(value -> out.add(new ArrayList<>()));
    int number = 0;
    for (String name : names) {
      int own = number++;
      meanings.get(vocabulary).get(name).forEach(value -> out.get(value).add(own));
    }
    return out;
  }

  /**
   * The number of a value of the {@code number}th vocabulary, or -1 for null and for names that no
   * value has.
   */
  public int valueNumber(int number, String name) {
    if (name == null) {
      return -1;
    }
    Integer asWritten = values.get(number).get(name);
    if (asWritten != null) {
      return asWritten;
    }
    Optional<String> inside = finders.get(number).value(name);
    if (inside.isPresent()) {
      return values.get(number).get(inside.get());
    }
    IntSet meant = meanings.get(number).get(Names.key(name));
    return meant == null || meant.size() != 1 ? -1 : meant.min();
  }

  /**
   * The values that a connection may have of which it is known only at which host it is, or of
   * which application, given the one that it has in truth: those whose names are alike up to the
   * first slash, or the first colon. An application that others carry is not told from these, nor
   * from what else they carry. O(values + applications · carried).
   */
  public IntSet known(int vocabulary, Coordinate coordinate, int value) {
    IntSet own = sameWhole(vocabulary, coordinate, value);
    return coordinate == Coordinate.APPLICATION ? notToldFrom(own) : own;
  }

  /** Up to all that carry some uses, and then down to all that these carry. */
  private IntSet notToldFrom(IntSet uses) {
    IntSet up = uses;
    for (IntSet before = IntSet.EMPTY; !before.equals(up); ) {
      before = up;
      for (ApplicationFact carrier : applications()) {
        for (String name : carrier.carries()) {
          up = usesOf(name).intersects(up) ? up.union(carrier.uses()) : up;
        }
      }
    }
    IntSet down = up;
    for (IntSet before = IntSet.EMPTY; !before.equals(down); ) {
      before = down;
      for (ApplicationFact carrier : applications()) {
        if (carrier.uses().intersects(before)) {
          for (String name : carrier.carries()) {
            down = down.union(usesOf(name));
          }
        }
      }
    }
    return down;
  }

  private IntSet usesOf(String application) {
    return usesByName.get(Names.key(application));
  }

  private IntSet sameWhole(int vocabulary, Coordinate coordinate, int value) {
    List<String> names = vocabularies.get(vocabulary).values();
    String whole = whole(coordinate, names.get(value));
    IntSet.Builder out = new IntSet.Builder();
    for (int i = 0; i < names.size(); i++) {
      if (whole(coordinate, names.get(i)).equals(whole)) {
        out.addInOrder(i, i);
      }
    }
    return out.build();
  }

  private static String whole(Coordinate coordinate, String name) {
    if (coordinate != Coordinate.SITE) {
      int end = name.indexOf(':');
      return end < 0 ? name : name.substring(0, end);
    }
    // A host, whatever of it some rule tells apart: "host/path", "host, else".
    int end = 0;
    while (end < name.length() && name.charAt(end) != '/' && name.charAt(end) != ',') {
      end++;
    }
    return name.substring(0, end);
  }

  private IntSet zones(Criterion<String> criterion) {
    if (criterion.isAny()) {
      return allZones;
    }
    return zoneSets.computeIfAbsent(
        criterion,
        c -> {
          IntSet in = c.items().isEmpty() ? allZones : numbers(c.items());
          IntSet zones = in.minus(numbers(c.except()));
          return zones.equals(allZones) ? allZones : zones;
        });
  }

  private IntSet numbers(List<String> names) {
    IntSet out = IntSet.EMPTY;
    for (String name : names) {
      out = out.union(IntSet.of(zoneNumbers.get(Names.key(name))));
    }
    return out;
  }

  /** The addresses that a criterion stands for. */
  public AddressSet addresses(Criterion<AddressItem> criterion) {
    if (criterion.isAny()) {
      return AddressSet.ALL;
    }
    return addressSets.of(
        criterion,
        mentions(criterion, AddressItem.Named.class),
        c -> {
          AddressSet in = c.items().isEmpty() ? AddressSet.ALL : addresses(c.items());
          return c.except().isEmpty() ? in : in.minus(addresses(c.except()));
        });
  }

  private AddressSet addresses(List<AddressItem> items) {
    List<AddressRange> ranges = new ArrayList<>();
    collect(items, ranges);
    return AddressSet.of(ranges);
  }

  private void collect(List<AddressItem> items, List<AddressRange> out) {
    for (AddressItem item : items) {
      switch (item) {
        case AddressItem.Literal literal -> out.add(literal.range());
        case AddressItem.Named named -> {
          String key = Names.key(named.name());
          AddressSet set = fed.get(key);
          if (set != null) {
            out.addAll(set.ranges());
          } else {
            collect(addressObjects.get(key).members(), out);
          }
        }
      }
    }
  }

  private List<Match.Traffic> services(Criterion<ServiceItem> criterion) {
    if (criterion.isAny()) {
      return Match.Traffic.ALL;
    }
    return serviceSets.of(criterion, mentions(criterion, ServiceItem.Named.class), this::traffic);
  }

  /** Whether a criterion has an item of a kind; asked for every rule. */
  private static boolean mentions(Criterion<?> criterion, Class<?> kind) {
    for (Object item : criterion.items()) {
      if (kind.isInstance(item)) {
        return true;
      }
    }
    for (Object item : criterion.except()) {
      if (kind.isInstance(item)) {
        return true;
      }
    }
    return false;
  }

  /**
   * What a criterion stands for. Where it speaks of usual ports, that hangs on the application:
   *
   * <pre>
   *   whatever the application     the other items, less the other exceptions
   *   applications on ports P      P, less what is there already and the other exceptions
   * </pre>
   *
   * and where usual ports are excepted, on every port that is usual for some application:
   *
   * <pre>
   *   whatever the application     what is usual for none
   *   applications on ports P      what is usual for some, less P
   * </pre>
   *
   * An application that is not known is of neither kind in the lower lines.
   */
  private List<Match.Traffic> traffic(Criterion<ServiceItem> criterion) {
    TransportSet out = services(criterion.except());
    TransportSet in = criterion.items().isEmpty() ? TransportSet.ALL : services(criterion.items());
    TransportSet always = in.minus(out);
    boolean added = criterion.items().contains(USUAL_PORTS);
    List<Match.Traffic> all = new ArrayList<>();
    if (criterion.except().contains(USUAL_PORTS)) {
      TransportSet usual = TransportSet.EMPTY;
      IntSet others = anyTerms.get(vocabularyNumbers.get(Coordinate.APPLICATION));
      for (Map.Entry<TransportSet, IntSet> entry : byUsualPorts.entrySet()) {
        usual = usual.union(entry.getKey());
        others = others.minus(entry.getValue());
      }
      TransportSet never = always.minus(usual);
      TransportSet hanging = always.minus(never);
      add(all, never, null);
      byUsualPorts.forEach((ports, applications) -> add(all, hanging.minus(ports), applications));
      add(all, hanging, others);
    } else {
      add(all, always, null);
      if (added) {
        byUsualPorts.forEach(
            (ports, applications) -> add(all, ports.minus(out).minus(always), applications));
      }
    }
    return List.copyOf(all);
  }

  private static void add(List<Match.Traffic> out, TransportSet services, IntSet applications) {
    if (!services.isEmpty() && (applications == null || !applications.isEmpty())) {
      out.add(new Match.Traffic(services, applications));
    }
  }

  private TransportSet services(List<ServiceItem> items) {
    TransportSet out = TransportSet.EMPTY;
    for (ServiceItem item : items) {
      out =
          out.union(
              switch (item) {
                case ServiceLiteral literal -> literal.set();
                case ServiceItem.UsualPorts usual -> TransportSet.EMPTY; // see traffic
                case ServiceItem.Named named ->
                    services(serviceObjects.get(Names.key(named.name())).members());
              });
    }
    return out;
  }
}
