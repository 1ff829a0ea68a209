package dev.ironsieve.core.rulebase;

import dev.ironsieve.core.model.AddressObject;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Feed;
import dev.ironsieve.core.model.GatewaySettings;
import dev.ironsieve.core.model.InvalidModel;
import dev.ironsieve.core.model.Names;
import dev.ironsieve.core.model.ObjectKind;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.RulebaseKind;
import dev.ironsieve.core.model.SavedCheck;
import dev.ironsieve.core.model.Section;
import dev.ironsieve.core.model.ServiceObject;
import dev.ironsieve.core.model.TermObject;
import dev.ironsieve.core.model.Vocabulary;
import dev.ironsieve.core.model.Zone;
import dev.ironsieve.core.vocabulary.DerivedVocabularies;
import dev.ironsieve.core.vocabulary.FileKinds;
import java.time.DateTimeException;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Objects;
import java.util.Optional;

/**
 * Rules in order, with their zones and objects. Every name that is used exists, names and ids are
 * unique, and no group contains itself.
 */
public final class Rulebase {
  /** Most rules in one rulebase. */
  public static final int MAX_RULES = 200_000;

  /** Most objects of one kind: zones, addresses, services and the others each. */
  public static final int MAX_OBJECTS = 20_000;

  /** Most sections. */
  public static final int MAX_SECTIONS = 10_000;

  /** Deepest nesting of groups, in levels; a group without groups has one. */
  public static final int MAX_DEPTH = 100;

  /**
   * Most members of all groups together, counting for each group every address or service that it
   * has itself or through other groups, and every group on the way, once.
   */
  public static final int MAX_RESOLVED = 4_000_000;

  private final String name;
  private final RulebaseKind kind;
  private final CommonRules common; // or null
  private final List<Zone> zones;
  private final List<AddressObject> addresses;
  private final List<ServiceObject> services;
  private final List<TermObject> termObjects;
  private final List<Vocabulary> pinned;
  private final List<Feed> feeds;
  private final GatewaySettings gatewaySettings;
  private final DerivedVocabularies written;
  private final List<Vocabulary> vocabularies; // pinned and written
  private final List<SavedCheck> checks;
  private final List<Section> sections;
  private final List<Rule> rules;
  private final RulebaseCheck check;

  /**
   * A valid rulebase.
   *
   * @param termObjects host lists, schedules and device states
   * @param pinned vocabularies from outside
   * @param feeds lists of addresses and hosts from outside
   * @param gatewaySettings rate plans, notices, time zone and the like
   */
  public Rulebase(
      String name,
      List<Zone> zones,
      List<AddressObject> addresses,
      List<ServiceObject> services,
      List<TermObject> termObjects,
      List<Vocabulary> pinned,
      List<Feed> feeds,
      GatewaySettings gatewaySettings,
      List<Section> sections) {
    this(
        new RulebaseBuilder()
            .name(name)
            .zones(zones)
            .addresses(addresses)
            .services(services)
            .termObjects(termObjects)
            .pinned(pinned)
            .feeds(feeds)
            .gatewaySettings(gatewaySettings)
            .sections(sections));
  }

  Rulebase(RulebaseBuilder parts) {
    name = Names.checkTitle("rulebase", parts.name);
    kind = parts.kind;
    common = parts.common;
    zones = List.copyOf(parts.zones);
    addresses = List.copyOf(parts.addresses);
    services = List.copyOf(parts.services);
    termObjects =
        parts.termObjects.stream().sorted(Comparator.comparing(TermObject::kind)).toList();
    pinned = List.copyOf(parts.pinned);
    feeds = List.copyOf(parts.feeds);
    gatewaySettings = parts.gatewaySettings;
    checks = checked(parts.checks);
    sections = List.copyOf(parts.sections);
    rules = rules(sections);
    written =
        new DerivedVocabularies(
            pinned, termObjects, feeds, rules, gatewaySettings.timeZone(), parts.others);
    vocabularies = written.with(pinned);
    Rulebase before = parts.before;
    check = new RulebaseCheck(this, before == null ? null : before.check);
    check.sections(sections);
    boolean known = before != null && check.knowsAllOf(before.check);
    check.rules(rules, known ? before.rules : List.of());
    CommonRulesCheck.check(this);
  }

  /** A rulebase without host lists, schedules, device states, feeds, rate plans and notices. */
  public Rulebase(
      String name,
      List<Zone> zones,
      List<AddressObject> addresses,
      List<ServiceObject> services,
      List<Vocabulary> pinned,
      List<Section> sections) {
    this(
        new RulebaseBuilder()
            .name(name)
            .zones(zones)
            .addresses(addresses)
            .services(services)
            .pinned(pinned)
            .sections(sections));
  }

  /** Another state of a rulebase's rules, which say the same hosts, times and states of devices. */
  private Rulebase(
      Rulebase before, List<SavedCheck> checks, List<Section> sections, List<Rule> rules) {
    name = before.name;
    kind = before.kind;
    common = before.common;
    zones = before.zones;
    addresses = before.addresses;
    services = before.services;
    termObjects = before.termObjects;
    pinned = before.pinned;
    feeds = before.feeds;
    gatewaySettings = before.gatewaySettings;
    this.checks = checks == before.checks ? checks : checked(checks);
    written = before.written;
    vocabularies = before.vocabularies;
    this.sections = sections;
    this.rules = rules;
    check = before.check;
    check.sections(this.sections);
    check.rules(rules, before.rules);
    CommonRulesCheck.checkSections(this);
  }

  /** A builder with the parts of this rulebase. */
  private RulebaseBuilder edit() {
    return new RulebaseBuilder()
        .name(name)
        .kind(kind)
        .common(common)
        .zones(zones)
        .addresses(addresses)
        .services(services)
        .termObjects(termObjects)
        .pinned(pinned)
        .feeds(feeds)
        .gatewaySettings(gatewaySettings)
        .checks(checks)
        .sections(sections)
        .before(this);
  }

  private static List<SavedCheck> checked(List<SavedCheck> checks) {
    if (checks.size() > SavedCheck.MOST) {
      throw new InvalidModel("checks", "at most " + SavedCheck.MOST, checks.size() + "");
    }
    Names.unique("check", checks.stream().map(SavedCheck::name).toList());
    return List.copyOf(checks);
  }

  private static List<Rule> rules(List<Section> sections) {
    return sections.size() == 1
        ? sections.getFirst().rules()
        : sections.stream().flatMap(section -> section.rules().stream()).toList();
  }

  /** A rulebase whose rules ask for zones, addresses and services only. */
  public Rulebase(
      String name,
      List<Zone> zones,
      List<AddressObject> addresses,
      List<ServiceObject> services,
      List<Section> sections) {
    this(name, zones, addresses, services, List.of(), sections);
  }

  public static Rulebase empty(String name) {
    Section first = new Section("first", "Rules", List.of());
    return new Rulebase(name, List.of(), List.of(), List.of(), List.of(), List.of(first));
  }

  /** A rulebase without rules; a common one has a section for head rules and one for tail rules. */
  public static Rulebase empty(String name, RulebaseKind kind) {
    String own = Integer.toHexString(Names.key(name).hashCode()); // not an id of those below
    List<Section> sections =
        kind == RulebaseKind.COMMON
            ? List.of(
                new Section("head-" + own, "Head rules", List.of()),
                new Section("tail-" + own, "Tail rules", List.of(), true))
            : empty(name).sections();
    return new RulebaseBuilder().name(name).kind(kind).sections(sections).build();
  }

  public String name() {
    return name;
  }

  public RulebaseKind kind() {
    return kind;
  }

  /** As another kind of rulebase. */
  public Rulebase ofKind(RulebaseKind other) {
    return edit().kind(other).build();
  }

  /** What this has from a common rulebase; its parts are among the sections and objects. */
  public Optional<CommonRules> common() {
    return Optional.ofNullable(common);
  }

  /** The name of the common rulebase directly above, or null. */
  public String commonName() {
    return common == null ? null : common.rulebase();
  }

  /**
   * With the parts of a common rulebase in the place of those so far.
   *
   * @param next null for none
   * @throws InvalidModel if its names clash with those here, or are needed here
   */
  public Rulebase under(CommonRules next) {
    return Objects.equals(common, next) ? this : edit().under(next).build();
  }

  /** The same rules in the same order, none of which is from a common rulebase. */
  public Rulebase withoutOrigins() {
    List<Section> all =
        sections.stream().map(one -> new Section(one.id(), one.name(), one.rules())).toList();
    return edit().common(null).sections(all).build();
  }

  /** The parts that are not from a common rulebase. */
  public OwnParts own() {
    return OwnParts.of(edit());
  }

  /** Name of the common rulebase that a section is from; empty for one of this rulebase. */
  public Optional<String> originOf(Section section) {
    return common().flatMap(from -> from.originOf(section));
  }

  public List<Zone> zones() {
    return zones;
  }

  public List<AddressObject> addresses() {
    return addresses;
  }

  public List<ServiceObject> services() {
    return services;
  }

  /** Host lists, schedules and device states. */
  public List<TermObject> termObjects() {
    return termObjects;
  }

  /** Those of one kind. */
  public List<TermObject> termObjects(ObjectKind kind) {
    return termObjects.stream().filter(object -> object.kind() == kind).toList();
  }

  /** The vocabularies from outside. */
  public List<Vocabulary> pinned() {
    return pinned;
  }

  /** The vocabularies whose names rules can use: the pinned ones, and file kinds. */
  public List<Vocabulary> named() {
    if (pinned.stream().anyMatch(v -> v.coordinate() == Coordinate.FILE_KIND)) {
      return pinned;
    }
    List<Vocabulary> out = new ArrayList<>(pinned);
    out.add(FileKinds.vocabulary());
    return List.copyOf(out);
  }

  /** Lists of addresses and hosts from outside. */
  public List<Feed> feeds() {
    return feeds;
  }

  /** The feed of that name, if there is one. */
  public Optional<Feed> feed(String name) {
    String key = Names.key(name);
    return feeds.stream().filter(feed -> Names.key(feed.name()).equals(key)).findFirst();
  }

  /** Rate plans and notices. */
  public GatewaySettings gatewaySettings() {
    return gatewaySettings;
  }

  /**
   * A time in the gateway's time zone: for {@code 2026-12-24T10:15Z} or {@code
   * 2026-12-24T10:15+01:00} its local time; any other text unchanged.
   */
  public String localTime(String said) {
    try {
      return OffsetDateTime.parse(said)
          .atZoneSameInstant(gatewaySettings.timeZone())
          .toLocalDateTime()
          .toString();
    } catch (DateTimeException e) {
      return said;
    }
  }

  /** With other rate plans or notices, and rules. */
  public Rulebase withGatewaySettings(GatewaySettings gatewaySettings, List<Section> sections) {
    return edit().gatewaySettings(gatewaySettings).sections(sections).build();
  }

  /** With other feeds. */
  public Rulebase withFeeds(List<Feed> feeds) {
    return edit().feeds(feeds).build();
  }

  /** All vocabularies, pinned and derived. */
  public List<Vocabulary> vocabularies() {
    return vocabularies;
  }

  public List<Section> sections() {
    return sections;
  }

  /** Connections that are tried again after every change. */
  public List<SavedCheck> checks() {
    return checks;
  }

  /** With other checks. */
  public Rulebase withChecks(List<SavedCheck> checks) {
    return new Rulebase(this, checks, sections, rules);
  }

  /** All rules as the gateway reads them. */
  public List<Rule> rules() {
    return rules;
  }

  /** With other rules; only those are checked that this has not at the same place. */
  public Rulebase withSections(List<Section> sections) {
    List<Section> next = List.copyOf(sections);
    List<Rule> nextRules = rules(next);
    return written.isOf(rules, nextRules)
        ? new Rulebase(this, checks, next, nextRules)
        : edit().sections(next).build();
  }

  /** With other zones, objects and rules; they change together, so that names keep fitting. */
  public Rulebase with(
      List<Zone> zones,
      List<AddressObject> addresses,
      List<ServiceObject> services,
      List<Section> sections) {
    return edit().zones(zones).addresses(addresses).services(services).sections(sections).build();
  }

  /** With other host lists, schedules or device states, and rules. */
  public Rulebase withTermObjects(List<TermObject> termObjects, List<Section> sections) {
    return edit().termObjects(termObjects).sections(sections).build();
  }

  /** With other pinned editions. */
  public Rulebase withPinned(List<Vocabulary> pinned) {
    return edit().pinned(pinned).build();
  }

  /**
   * The same rules, with the hosts, times and states of devices told apart that another rulebase
   * says, so that both have the same values.
   */
  public Rulebase tellingApart(Rulebase other) {
    return edit().others(other.written.members()).build();
  }

  /**
   * Whether nothing but rules tells this from another rulebase in what names mean: these may say
   * other hosts, times and states of devices.
   */
  public boolean hasObjectsOf(Rulebase other) {
    return hasSourcesOf(other)
        && addresses.equals(other.addresses)
        && services.equals(other.services)
        && termObjects.equals(other.termObjects)
        && feeds.equals(other.feeds);
  }

  /**
   * Whether zones, all that is pinned and the gateway's clock are those of another rulebase, so
   * that only what is written in both, and feeds, may tell them apart.
   */
  public boolean hasSourcesOf(Rulebase other) {
    return zones.equals(other.zones)
        && pinned.equals(other.pinned)
        && gatewaySettings.timeZone().equals(other.gatewaySettings.timeZone());
  }

  /**
   * Whether all hosts, times and device states in the rules of another rulebase with the same
   * objects occur here.
   */
  public boolean saysAllOf(Rulebase other) {
    return written.saysAllOf(other.written);
  }

  /** Whether every name has the same meaning in another rulebase; the rules may differ. */
  public boolean namesMeanAsIn(Rulebase other) {
    return tellsApartAsIn(other)
        && addresses.equals(other.addresses)
        && services.equals(other.services)
        && feeds.equals(other.feeds);
  }

  /**
   * Whether zones and vocabularies equal those of another rulebase, so that only addresses and
   * services may differ in meaning.
   */
  public boolean tellsApartAsIn(Rulebase other) {
    return zones.equals(other.zones) && vocabularies.equals(other.vocabularies);
  }

  /** The vocabulary of a coordinate, if it has one. */
  public Optional<Vocabulary> vocabulary(Coordinate coordinate) {
    return vocabularies.stream().filter(v -> v.coordinate() == coordinate).findFirst();
  }

  /** With another name. */
  public Rulebase named(String name) {
    return edit().name(name).build();
  }

  /** The rules that mention {@code name}, themselves or through objects that mention it. */
  public List<Rule> rulesUsing(ObjectKind kind, String name) {
    return new ObjectUse(this, kind).rulesUsing(name);
  }

  @Override
  public boolean equals(Object o) {
    return o instanceof Rulebase other
        && name.equals(other.name)
        && zones.equals(other.zones)
        && addresses.equals(other.addresses)
        && services.equals(other.services)
        && termObjects.equals(other.termObjects)
        && pinned.equals(other.pinned)
        && feeds.equals(other.feeds)
        && gatewaySettings.equals(other.gatewaySettings)
        && checks.equals(other.checks)
        && sections.equals(other.sections)
        && kind == other.kind
        && Objects.equals(common, other.common)
        && vocabularies.equals(other.vocabularies);
  }

  @Override
  public int hashCode() {
    return Objects.hash(
        name,
        zones,
        addresses,
        services,
        termObjects,
        pinned,
        feeds,
        gatewaySettings,
        checks,
        sections);
  }

  /** The name; the rules would be too many. */
  @Override
  public String toString() {
    return name + " (" + rules.size() + " rules)";
  }
}
