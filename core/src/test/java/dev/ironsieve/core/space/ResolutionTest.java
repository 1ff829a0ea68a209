package dev.ironsieve.core.space;

import static org.assertj.core.api.Assertions.assertThat;

import dev.ironsieve.core.model.AddressItem;
import dev.ironsieve.core.model.AddressObject;
import dev.ironsieve.core.model.ApplicationFact;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Section;
import dev.ironsieve.core.model.ServiceItem;
import dev.ironsieve.core.model.ServiceLiteral;
import dev.ironsieve.core.model.ServiceObject;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.model.Vocabulary;
import dev.ironsieve.core.model.Zone;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.sets.Address;
import dev.ironsieve.core.sets.AddressRange;
import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.sets.Transport;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;

class ResolutionTest {
  private static final List<Zone> ZONES =
      List.of(zone("quay", "10.4.0.0/16"), zone("kiosks", "10.4.7.0/24"), zone("outside"));
  private static final List<AddressObject> ADDRESSES =
      List.of(
          address("tills", "10.4.7.1"),
          address("shops", "Tills", "10.4.7.2"),
          address("pumps", "10.4.1.1"));
  private static final List<ServiceObject> SERVICES =
      List.of(
          service("web", "tcp/80"), service("both", "WEB", "udp/53"), service("pings", "icmp/8"));
  private static final Vocabulary PEOPLE =
      people("1", List.of("ada", "ben", "cyd"), IntSet.range(0, 1), IntSet.of(2));
  private static final Vocabulary USES =
      new Vocabulary(
          Coordinate.APPLICATION,
          "1",
          List.of("Gullwire: post", "Gullwire: other use", "Quillbox", "Tidecast", "Kelpcall"),
          List.of(),
          List.of(
              fact("Gullwire", IntSet.range(0, 1), "tcp/443", List.of(), List.of("Quillbox")),
              fact("Quillbox", IntSet.of(2), "tcp/443", List.of("Tidecast"), List.of()),
              fact("Tidecast", IntSet.of(3), "udp/99", List.of(), List.of()),
              fact("Kelpcall", IntSet.of(4), null, List.of(), List.of())));

  private static Vocabulary people(
      String edition, List<String> values, IntSet crew, IntSet master) {
    return new Vocabulary(
        Coordinate.PERSON,
        edition,
        values,
        List.of(new Vocabulary.Term("crew", crew), new Vocabulary.Term("master", master)));
  }

  private static Zone zone(String name, String... networks) {
    return new Zone(name, List.of(networks).stream().map(AddressRange::parse).toList(), "");
  }

  private static AddressObject address(String name, String... members) {
    return new AddressObject(name, List.of(members).stream().map(AddressItem::parse).toList(), "");
  }

  private static ServiceObject service(String name, String... members) {
    return new ServiceObject(name, List.of(members).stream().map(ServiceItem::parse).toList(), "");
  }

  private static ApplicationFact fact(
      String name, IntSet uses, String port, List<String> needs, List<String> carries) {
    return new ApplicationFact(
        name,
        uses,
        port == null ? List.of() : List.of(ServiceLiteral.parse(port)),
        name.equals("Tidecast") ? List.of("tides.example") : List.of(),
        needs,
        carries,
        IntSet.EMPTY);
  }

  private static Rule rule(String id) {
    return Rule.matchingAll(id, id, Verdict.DROP);
  }

  private static <T> Criterion<T> any() {
    return Criterion.any();
  }

  private static Criterion<AddressItem> addresses(String... items) {
    return new Criterion<>(List.of(items).stream().map(AddressItem::parse).toList(), List.of());
  }

  private static Rule from(String id, Criterion<AddressItem> addresses) {
    return rule(id).matching(any(), addresses, any(), any(), any());
  }

  private static Rule to(String id, Criterion<AddressItem> addresses) {
    return rule(id).matching(any(), any(), any(), addresses, any());
  }

  private static Rule on(String id, Criterion<ServiceItem> services) {
    return rule(id).matching(any(), any(), any(), any(), services);
  }

  private static Rule asking(String id, Coordinate coordinate, String what) {
    return rule(id).asking(Map.of(coordinate, Criterion.of(what)));
  }

  private static int place(Resolution resolution, Coordinate coordinate) {
    List<Vocabulary> all = resolution.vocabularies();
    return IntStream.range(0, all.size())
        .filter(i -> all.get(i).coordinate() == coordinate)
        .findFirst()
        .orElseThrow();
  }

  private static List<Section> sections(List<Rule> rules) {
    return List.of(new Section("s", "S", rules));
  }

  private static final List<Rule> RULES =
      List.of(
          from("tills", addresses("tills")),
          to("shops", addresses("shops", "192.0.2.1")),
          from("less", new Criterion<>(List.of(), List.of(AddressItem.parse("TILLS")))),
          from("pumps", addresses("pumps")),
          from("literal", addresses("10.4.7.1")),
          on("web", Criterion.of(ServiceItem.parse("web"))),
          on("others", new Criterion<>(List.of(), List.of(ServiceItem.parse("both")))),
          on("pings", Criterion.of(ServiceItem.parse("pings"))),
          on("port", Criterion.of(ServiceItem.parse("tcp/80"))),
          on("usual", Criterion.of(new ServiceItem.UsualPorts())),
          asking("crew", Coordinate.PERSON, "Crew"),
          asking("master", Coordinate.PERSON, "master"),
          asking("site", Coordinate.SITE, "tides.example/north"),
          asking("host", Coordinate.SITE, "tides.example"),
          rule("all"));

  private static Rulebase base() {
    return new Rulebase("test", ZONES, ADDRESSES, SERVICES, List.of(PEOPLE, USES), sections(RULES));
  }

  /** The ids of rules of which something is not the same set, but for what is in no criterion. */
  private static List<String> otherSets(Resolution one, Resolution other) {
    List<Function<ResolvedMatch, Object>> parts =
        List.of(
            ResolvedMatch::fromZones,
            ResolvedMatch::from,
            ResolvedMatch::toZones,
            ResolvedMatch::to,
            ResolvedMatch::services,
            ResolvedMatch::terms);
    List<String> out = new ArrayList<>();
    for (Rule rule : RULES) {
      ResolvedMatch here = one.match(rule);
      ResolvedMatch there = other.match(rule);
      boolean same = parts.stream().allMatch(part -> isSame(part.apply(here), part.apply(there)));
      if (!same) {
        out.add(rule.id());
      }
    }
    return out;
  }

  private static boolean isSame(Object one, Object other) {
    return one == other
        || one instanceof List<?> these
            && other instanceof List<?> those
            && these.equals(those)
            && IntStream.range(0, these.size()).allMatch(i -> isWithin(these.get(i), those.get(i)));
  }

  private static boolean isWithin(Object one, Object other) {
    return one == other || one instanceof ResolvedMatch.ServiceConjunct;
  }

  @Test
  void whatIsSaidAlikeIsTheSameSetInEveryState() {
    Rulebase base = base();
    Resolution before = new Resolution(base);
    Resolution after = new Resolution(base.withSections(sections(RULES.reversed())), before);
    assertThat(otherSets(after, before))
        .isEmpty(); // also for names that the later one resolves first
    assertThat(otherSets(new Resolution(base, after), before)).isEmpty();
    assertThat(after.tellsApartAsIn(before)).isTrue();
    assertThat(after.sayingOthers(RULES, before)).isEmpty();
    assertThat(otherSets(new Resolution(base), before)).contains("tills", "web", "crew", "all");
  }

  @Test
  void anAddressThatIsOtherwiseIsSoForThoseWhoMentionIt() {
    Rulebase base = base();
    Resolution before = new Resolution(base);
    assertThat(otherSets(before, before)).isEmpty();
    List<AddressObject> others = new ArrayList<>(ADDRESSES);
    others.set(0, address("tills", "10.4.7.9"));
    others.add(address("new", "10.4.9.9"));
    Rulebase now = base.with(ZONES, others, SERVICES, base.sections());
    Resolution after = new Resolution(now, before);
    assertThat(otherSets(after, before)).containsExactly("tills", "shops", "less");
    assertThat(after.addresses(addresses("shops")).contains(Address.parse("10.4.7.9"))).isTrue();
    assertThat(after.addresses(addresses("shops")).contains(Address.parse("10.4.7.1"))).isFalse();
    assertThat(after.sayingOthers(RULES, before))
        .containsExactlyInAnyOrder("tills", "shops", "less");
    assertThat(before.sayingOthers(List.of(from("new", addresses("new"))), after)).isEmpty();
    assertThat(after.sayingOthers(List.of(from("new", addresses("new"))), before)).isEmpty();
    assertThat(after.tellsApartAsIn(before)).isTrue();
  }

  @Test
  void aServiceThatIsOtherwiseIsSoForThoseWhoMentionIt() {
    Rulebase base = base();
    Resolution before = new Resolution(base);
    assertThat(otherSets(before, before)).isEmpty();
    List<ServiceObject> others = new ArrayList<>(SERVICES);
    others.set(0, service("web", "tcp/8080"));
    Resolution after = new Resolution(base.with(ZONES, ADDRESSES, others, base.sections()), before);
    assertThat(otherSets(after, before)).containsExactly("web", "others");
    assertThat(after.sayingOthers(RULES, before)).containsExactlyInAnyOrder("web", "others");
  }

  @Test
  void aTermThatIsOtherwiseIsSoForThoseWhoMentionIt() {
    Rulebase base = base();
    Resolution before = new Resolution(base);
    assertThat(otherSets(before, before)).isEmpty();
    Vocabulary moved = people("2", PEOPLE.values(), IntSet.of(0), IntSet.of(2));
    Resolution after = new Resolution(base.withPinned(List.of(moved, USES)), before);
    assertThat(after.tellsApartAsIn(before)).isTrue();
    assertThat(after.hasValuesOf(before, 0)).isTrue();
    assertThat(after.sayingOthers(RULES, before)).containsExactly("crew");
    assertThat(after.match(RULES.get(10)).terms().get(0)).isEqualTo(IntSet.of(0));
  }

  @Test
  void otherValuesAndZonesAreToldApartOtherwise() {
    Rulebase base = base();
    Resolution before = new Resolution(base);
    Vocabulary more =
        new Vocabulary(Coordinate.PERSON, "3", List.of("ada", "ben", "cyd", "dot"), PEOPLE.terms());
    Resolution grown = new Resolution(base.withPinned(List.of(more, USES)), before);
    assertThat(grown.tellsApartAsIn(before)).isFalse();
    assertThat(grown.hasValuesOf(before, 0)).isFalse();
    assertThat(grown.hasValuesOf(before, 1)).isTrue();
    assertThat(grown.hasZonesOf(before)).isTrue();
    List<Zone> zones = List.of(ZONES.get(0), ZONES.get(1), zone("outside", "192.0.2.0/24"));
    Resolution elsewhere =
        new Resolution(base.with(zones, ADDRESSES, SERVICES, base.sections()), before);
    assertThat(elsewhere.hasZonesOf(before)).isFalse();
    assertThat(elsewhere.tellsApartAsIn(before)).isFalse();
  }

  @Test
  void otherUsualPortsAreOthersForThoseWhoSpeakOfThem() {
    Rulebase base = base();
    Resolution before = new Resolution(base);
    assertThat(otherSets(before, before)).isEmpty();
    Vocabulary ports =
        new Vocabulary(
            Coordinate.APPLICATION,
            "2",
            USES.values(),
            List.of(),
            List.of(fact("Quillbox", IntSet.of(2), "tcp/8443", List.of(), List.of())));
    Resolution other = new Resolution(base.withPinned(List.of(PEOPLE, ports)), before);
    assertThat(otherSets(other, before)).containsExactly("usual");
    assertThat(other.applications()).isEqualTo(ports.applications());
  }

  @Test
  void usualPortsAreThoseOfTheApplication() {
    Resolution resolution = new Resolution(base());
    List<ResolvedMatch.ServiceConjunct> usual = resolution.match(RULES.get(9)).services();
    assertThat(usual)
        .containsExactlyInAnyOrder(
            new ResolvedMatch.ServiceConjunct(
                ServiceLiteral.parse("tcp/443").set(), IntSet.range(0, 2)),
            new ResolvedMatch.ServiceConjunct(ServiceLiteral.parse("udp/99").set(), IntSet.of(3)));
    ServiceItem both = ServiceItem.parse("both");
    Criterion<ServiceItem> others =
        new Criterion<>(
            List.of(ServiceItem.parse("tcp/443"), both, ServiceItem.parse("udp/99")),
            List.of(new ServiceItem.UsualPorts()));
    assertThat(resolution.match(on("not", others)).services())
        .containsExactlyInAnyOrder(
            new ResolvedMatch.ServiceConjunct(
                ServiceLiteral.parse("tcp/80").set().union(ServiceLiteral.parse("udp/53").set()),
                null),
            new ResolvedMatch.ServiceConjunct(
                ServiceLiteral.parse("udp/99").set(), IntSet.range(0, 2)),
            new ResolvedMatch.ServiceConjunct(ServiceLiteral.parse("tcp/443").set(), IntSet.of(3)),
            new ResolvedMatch.ServiceConjunct(
                ServiceLiteral.parse("tcp/443").set().union(ServiceLiteral.parse("udp/99").set()),
                IntSet.of(4)));
    assertThat(resolution.usualServices(USES.applications().get(3)))
        .isEqualTo(Transport.ANY_SERVICE);
    assertThat(resolution.usualServices(USES.applications().get(2)))
        .isEqualTo(ServiceLiteral.parse("udp/99").set().parts().getFirst().services());
    assertThat(resolution.concernedByNeeds())
        .extracting(ApplicationFact::name)
        .containsExactly("Quillbox", "Tidecast");
  }

  @Test
  void anAddressTellsTheZoneThatHoldsItMostNarrowly() {
    Resolution resolution = new Resolution(base());
    assertThat(resolution.zoneOf(Address.parse("10.4.7.1"))).isEqualTo("kiosks");
    assertThat(resolution.zoneOf(Address.parse("10.4.8.1"))).isEqualTo("quay");
    assertThat(resolution.zoneOf(Address.parse("192.0.2.1"))).isEqualTo("outside");
    List<Zone> twoOpen = List.of(ZONES.get(1), ZONES.get(0), ZONES.get(2), zone("beyond"));
    Resolution two =
        new Resolution(new Rulebase("t", twoOpen, List.of(), List.of(), sections(List.of())));
    assertThat(two.zoneOf(Address.parse("192.0.2.1"))).isNull();
    assertThat(two.zoneOf(Address.parse("10.4.7.1"))).isEqualTo("kiosks");
    Resolution none = new Resolution(Rulebase.empty("e"));
    assertThat(none.zoneOf(Address.parse("10.4.7.1"))).isNull();
    assertThat(none.zoneNumber("anything")).isZero();
    assertThat(resolution.zoneNumber("QUAY")).isZero();
    assertThat(resolution.zoneNumber("kiosks")).isEqualTo(1);
    assertThat(resolution.zoneNumber("attic")).isEqualTo(-1);
    assertThat(resolution.zoneNumber(null)).isEqualTo(-1);
  }

  @Test
  void valuesAreFoundByTheirNamesAndByNamesThatMeanNoOther() {
    Resolution resolution = new Resolution(base());
    assertThat(resolution.valueNumber(0, "ben")).isEqualTo(1);
    assertThat(resolution.valueNumber(0, "MASTER")).isEqualTo(2);
    assertThat(resolution.valueNumber(0, "crew")).isEqualTo(-1);
    assertThat(resolution.valueNumber(0, "nobody")).isEqualTo(-1);
    assertThat(resolution.valueNumber(0, null)).isEqualTo(-1);
    assertThat(resolution.hasValue(Coordinate.PERSON, "ben")).isTrue();
    assertThat(resolution.hasValue(Coordinate.PERSON, "master")).isFalse();
    assertThat(resolution.hasValue(Coordinate.DEVICE, "managed")).isFalse();
    assertThat(resolution.finder(Coordinate.PERSON)).isPresent();
    assertThat(resolution.finder(Coordinate.DEVICE)).isEmpty();
  }

  @Test
  void whatIsKnownEarlyIsTheHostOrTheApplicationAndWhatItIsNotToldFrom() {
    Resolution resolution = new Resolution(base());
    int uses = place(resolution, Coordinate.APPLICATION);
    IntSet carried = IntSet.range(0, 2);
    for (int value = 0; value < 3; value++) {
      assertThat(resolution.known(uses, Coordinate.APPLICATION, value)).isEqualTo(carried);
    }
    assertThat(resolution.known(uses, Coordinate.APPLICATION, 3)).isEqualTo(IntSet.of(3));
    int sites = place(resolution, Coordinate.SITE);
    List<String> values = resolution.vocabularies().get(sites).values();
    int tides = values.indexOf("tides.example/north");
    assertThat(tides).as("%s", values).isNotNegative();
    for (int value = 0; value < values.size(); value++) {
      boolean there = values.get(value).matches("tides\\.example([/,].*)?");
      assertThat(resolution.known(sites, Coordinate.SITE, tides).contains(value))
          .as(values.get(value))
          .isEqualTo(there);
    }
    assertThat(resolution.known(sites, Coordinate.SITE, tides).size())
        .as("%s", values)
        .isGreaterThan(1);
    ApplicationFact tidecast = USES.applications().get(2);
    assertThat(resolution.usualSites(tidecast))
        .isEqualTo(resolution.known(sites, Coordinate.SITE, tides));
    assertThat(resolution.usualSites(USES.applications().getFirst())).isNull();
    Rulebase elsewhere = base().withSections(sections(List.of(rule("all"))));
    assertThat(new Resolution(elsewhere, resolution).usualSites(tidecast)).isNull();
  }

  @Test
  void valuesOfAnotherStateAreThoseThatRulesMeanAlike() {
    Rulebase base = base();
    Vocabulary others = people("2", List.of("eve", "cyd", "fay"), IntSet.of(2), IntSet.of(1));
    Resolution before = new Resolution(base);
    Resolution after = new Resolution(base.withPinned(List.of(others, USES)), before);
    assertThat(before.valuesIn(after, 0, RULES)).containsExactly(2, 2, 1);
    assertThat(after.valuesIn(before, 0, RULES)).containsExactly(-1, 2, 0);
    assertThat(after.valuesIn(before, 0, RULES.subList(0, 10))).containsExactly(0, 0, 0);
    assertThat(after.valuesIn(before, 1, RULES)).isNull();
  }
}
