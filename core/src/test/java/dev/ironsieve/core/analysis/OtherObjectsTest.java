package dev.ironsieve.core.analysis;

import static org.assertj.core.api.Assertions.assertThat;

import dev.ironsieve.core.analysis.LiveAnalysis.Changed;
import dev.ironsieve.core.edit.Edit;
import dev.ironsieve.core.edit.Place;
import dev.ironsieve.core.model.AddressItem;
import dev.ironsieve.core.model.AddressObject;
import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.Feed;
import dev.ironsieve.core.model.FeedKind;
import dev.ironsieve.core.model.FeedSet;
import dev.ironsieve.core.model.ObjectKind;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Section;
import dev.ironsieve.core.model.ServiceItem;
import dev.ironsieve.core.model.ServiceObject;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.ruleindex.RuleIndex;
import dev.ironsieve.core.sets.AddressRange;
import dev.ironsieve.core.sets.AddressSet;
import dev.ironsieve.core.twin.Rounds;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import org.junit.jupiter.api.Test;

/** Addresses, services and feeds that come to mean something else, against a fresh analysis. */
class OtherObjectsTest {
  private static final List<String> RANGES =
      List.of("10.0.0.0/30", "10.0.0.2-10.0.0.5", "10.0.0.7", "10.0.0.0/8", "2001:db8::/64");
  private static final List<String> PORTS = List.of("tcp/80", "tcp/80-90", "udp/53", "tcp/443");

  /** Of addresses the last two hold others, and so does the last service. */
  private static final List<String> ADDRESSES = List.of("quay", "pier", "ships", "all of it");

  private static final List<String> SERVICES = List.of("web", "names", "both");
  private static final String LISTED = "listed";

  private final Random random = new Random(7);

  private <T> T any(List<T> all) {
    return all.get(random.nextInt(all.size()));
  }

  private AddressObject address(String name) {
    List<AddressItem> members = new ArrayList<>(List.of(AddressItem.parse(any(RANGES))));
    int place = ADDRESSES.indexOf(name);
    if (place >= 2) {
      members.add(named(ADDRESSES.get(random.nextInt(place))));
    }
    return new AddressObject(name, members, "");
  }

  private static AddressItem named(String name) {
    return new AddressItem.Named(name);
  }

  private ServiceObject service(String name) {
    List<ServiceItem> members = new ArrayList<>(List.of(ServiceItem.parse(any(PORTS))));
    if (name.equals("both")) {
      members.add(new ServiceItem.Named(any(SERVICES.subList(0, 2))));
    }
    return new ServiceObject(name, members, "");
  }

  private Feed feed() {
    AddressSet ranges = AddressSet.of(List.of(AddressRange.parse(any(RANGES))));
    return new Feed(
        LISTED,
        FeedKind.ADDRESSES,
        "day " + random.nextInt(),
        List.of(new FeedSet.Addresses(LISTED, ranges)));
  }

  private Criterion<AddressItem> someAddresses() {
    List<AddressItem> some = new ArrayList<>();
    ADDRESSES.forEach(name -> some.add(named(name)));
    some.add(named(LISTED));
    some.add(AddressItem.parse(any(RANGES)));
    return switch (random.nextInt(4)) {
      case 0 -> Criterion.any();
      case 1 -> new Criterion<>(List.of(), List.of(any(some)));
      default -> Criterion.of(any(some));
    };
  }

  private Rule rule(String id) {
    Rule all =
        Rule.matchingAll(id, "rule " + id, random.nextBoolean() ? Verdict.ALLOW : Verdict.DROP);
    return all.matching(
            all.fromZones(),
            someAddresses(),
            all.toZones(),
            random.nextBoolean() ? someAddresses() : Criterion.any(),
            random.nextInt(3) == 0
                ? Criterion.any()
                : Criterion.of(
                    random.nextBoolean()
                        ? new ServiceItem.Named(any(SERVICES))
                        : ServiceItem.parse(any(PORTS))))
        .enabled(random.nextInt(8) > 0);
  }

  private Rulebase base() {
    List<Rule> rules = new ArrayList<>();
    for (int i = 0; i < 12; i++) {
      rules.add(rule("r" + i));
    }
    return new Rulebase(
            "b",
            List.of(),
            ADDRESSES.stream().map(this::address).toList(),
            SERVICES.stream().map(this::service).toList(),
            List.of())
        .withFeeds(List.of(feed()))
        .withSections(List.of(new Section("s", "S", rules)));
  }

  private Edit edit(Rulebase base) {
    String address = any(ADDRESSES);
    String service = any(SERVICES);
    return switch (random.nextInt(6)) {
      case 0, 1 -> new Edit.PutAddress(address(address), address);
      case 2 -> new Edit.PutService(service(service), service);
      case 3 -> new Edit.PutFeed(feed());
      case 4 -> {
        AddressObject fresh = new AddressObject("fresh", address(address).members(), "");
        yield base.addresses().stream().anyMatch(o -> o.name().equals("fresh"))
            ? new Edit.DeleteObject(ObjectKind.ADDRESS, "fresh")
            : new Edit.PutAddress(fresh, null);
      }
      default ->
          new Edit.Batch(
              List.of(
                  new Edit.PutAddress(address(address), address),
                  new Edit.ReplaceRules(List.of(rule("r" + random.nextInt(12)))),
                  new Edit.PutService(service(service), service)));
    };
  }

  private static Map<String, View> views(LiveAnalysis live) {
    Map<String, View> out = new HashMap<>();
    for (Rule rule : live.rulebase().rules()) {
      out.put(rule.id(), new View(live.standing(rule.id()), live.findings(rule.id())));
    }
    return out;
  }

  /** The part of an analysis that does not depend on the choice of witnesses. */
  private static Map<String, List<Object>> told(LiveAnalysis live) {
    Map<String, List<Object>> out = new HashMap<>();
    views(live)
        .forEach(
            (id, view) -> {
              List<Object> all =
                  new ArrayList<>(List.of(view.standing().getClass(), live.reach(id)));
              view.findings().forEach(finding -> all.add(finding.kind()));
              out.put(id, all);
            });
    return out;
  }

  @Test
  void answersAreThoseOfAFreshAnalysis() {
    int others = 0; // answers
    for (int round = 0; round < Rounds.of(60); round++) {
      Rulebase base = base();
      LiveAnalysis live = new LiveAnalysis(base);
      for (int step = 0; step < 20; step++) {
        Edit edit = edit(base);
        String as = "round " + round + " step " + step + " " + edit;
        Map<String, View> before = views(live);
        Map<String, List<Object>> toldBefore = told(live);
        base = edit.apply(base);
        Changed changed = live.update(base, Set.of());
        LiveAnalysis anew = new LiveAnalysis(base);
        assertThat(told(live)).as(as).isEqualTo(told(anew));
        for (Map.Entry<String, View> now : views(live).entrySet()) {
          boolean other = !now.getValue().equals(before.get(now.getKey()));
          assertThat(changed.answers().contains(now.getKey())).as(as).isEqualTo(other);
          others += other ? 1 : 0;
        }
        told(live)
            .forEach(
                (id, now) -> {
                  if (!now.get(1).equals(toldBefore.get(id).get(1))) {
                    assertThat(changed.reaches()).as("%s: %s", as, id).contains(id);
                  }
                });
      }
    }
    assertThat(others).isGreaterThan(Rounds.least(1000));
  }

  private static Rule from(String id, Verdict verdict, AddressItem address, int port) {
    Rule all = TcpRules.rule(id, verdict, port, port);
    return all.matching(
        all.fromZones(), Criterion.of(address), all.toZones(), all.toAddresses(), all.services());
  }

  private static AddressObject object(String name, String... members) {
    return new AddressObject(name, List.of(members).stream().map(AddressItem::parse).toList(), "");
  }

  private static Rulebase harbour() {
    return new Rulebase(
        "b",
        List.of(),
        List.of(object("quay", "10.0.0.0/24"), object("pier", "10.1.0.0/24")),
        List.of(),
        List.of(
            new Section(
                "s",
                "S",
                List.of(
                    from("quay", Verdict.ALLOW, named("quay"), 80),
                    from("pier", Verdict.ALLOW, named("pier"), 80),
                    from("host", Verdict.DROP, AddressItem.parse("10.0.0.7"), 80),
                    TcpRules.rule("alone", Verdict.DROP, 443, 443)))));
  }

  private static Changed update(LiveAnalysis live, Edit edit) {
    live.findings();
    live.answerAll();
    RuleIndex index = live.index();
    Changed changed = live.update(edit.apply(live.rulebase()), Set.of());
    assertThat(live.index()).as("the rules are not laid out anew").isSameAs(index);
    return changed;
  }

  @Test
  void anObjectThatNobodyMentionsChangesNothing() {
    LiveAnalysis live = new LiveAnalysis(harbour());
    Changed changed = update(live, new Edit.PutAddress(object("fresh", "10.0.0.0/30"), null));
    assertThat(changed).isEqualTo(new Changed(Set.of(), Set.of()));
    changed = update(live, new Edit.DeleteObject(ObjectKind.ADDRESS, "fresh"));
    assertThat(changed).isEqualTo(new Changed(Set.of(), Set.of()));
  }

  @Test
  void anotherNameOrOtherWordsChangeNothing() {
    LiveAnalysis live = new LiveAnalysis(harbour());
    Changed changed = update(live, new Edit.PutAddress(object("dock", "10.0.0.0/24"), "quay"));
    assertThat(changed).isEqualTo(new Changed(Set.of(), Set.of()));
    assertThat(live.index().rule(live.index().handle("quay")).fromAddresses().items())
        .containsExactly(named("dock"));
    changed =
        update(live, new Edit.PutAddress(object("dock", "10.0.0.0/25", "10.0.0.128/25"), "dock"));
    assertThat(changed).isEqualTo(new Changed(Set.of(), Set.of()));
    assertThat(live.standing("host")).isInstanceOf(Standing.Covered.class);
  }

  @Test
  void onlyRulesThatMentionItAndThoseThatMeetThemAreAskedAgain() {
    LiveAnalysis live = new LiveAnalysis(harbour());
    assertThat(live.standing("host")).isInstanceOf(Standing.Covered.class);
    Changed changed = update(live, new Edit.PutAddress(object("quay", "10.0.0.0/30"), "quay"));
    assertThat(live.standing("host")).isInstanceOf(Standing.Decides.class);
    assertThat(changed.answers()).contains("host").doesNotContain("pier", "alone");
    assertThat(changed.reaches()).contains("quay", "host").doesNotContain("pier", "alone");
    // A later rule with these names gets their present meaning.
    Rule also = from("also", Verdict.ALLOW, named("quay"), 443);
    changed = update(live, new Edit.InsertRules(List.of(also), new Place.Above("alone")));
    assertThat(changed.reaches()).contains("also", "alone");
    assertThat(live.index().match(live.index().handle("also")).from())
        .isEqualTo(AddressSet.of(List.of(AddressRange.parse("10.0.0.0/30"))));
  }

  @Test
  void aNameThatWasGoneMeansWhatItMeansNow() {
    LiveAnalysis live = new LiveAnalysis(harbour());
    for (String network : List.of("10.7.0.0/16", "10.8.0.0/16")) {
      update(live, new Edit.PutAddress(object("fresh", network), null));
      Rule fresh = from("fresh", Verdict.ALLOW, named("fresh"), 80);
      update(live, new Edit.InsertRules(List.of(fresh), new Place.Above("alone")));
      assertThat(live.index().match(live.index().handle("fresh")).from())
          .isEqualTo(AddressSet.of(List.of(AddressRange.parse(network))));
      update(live, new Edit.DeleteRules(List.of("fresh")));
      update(live, new Edit.DeleteObject(ObjectKind.ADDRESS, "fresh"));
    }
  }
}
