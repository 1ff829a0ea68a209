package dev.ironsieve.core.rulebase;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.ironsieve.core.model.AddressItem;
import dev.ironsieve.core.model.AddressObject;
import dev.ironsieve.core.model.ApplicationFact;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.Feed;
import dev.ironsieve.core.model.FeedKind;
import dev.ironsieve.core.model.FeedSet;
import dev.ironsieve.core.model.GatewaySettings;
import dev.ironsieve.core.model.InvalidModel;
import dev.ironsieve.core.model.Notice;
import dev.ironsieve.core.model.ObjectKind;
import dev.ironsieve.core.model.Rate;
import dev.ironsieve.core.model.RatePlan;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.SavedCheck;
import dev.ironsieve.core.model.Section;
import dev.ironsieve.core.model.ServiceItem;
import dev.ironsieve.core.model.ServiceLiteral;
import dev.ironsieve.core.model.ServiceObject;
import dev.ironsieve.core.model.SitePattern;
import dev.ironsieve.core.model.TermObject;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.model.Vocabulary;
import dev.ironsieve.core.model.Zone;
import dev.ironsieve.core.sets.AddressSet;
import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.vocabulary.FileKinds;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;

class RulebaseTest {
  private static AddressObject group(String name, String... members) {
    return new AddressObject(name, List.of(members).stream().map(AddressItem::parse).toList(), "");
  }

  private static Rulebase base(List<AddressObject> addresses, Rule... rules) {
    return new Rulebase(
        "test",
        List.of(new Zone("inside", List.of(), "")),
        addresses,
        List.of(),
        List.of(new Section("s", "Rules", List.of(rules))));
  }

  private static <T> Criterion<T> any() {
    return Criterion.any();
  }

  private static Rule from(String id, String address) {
    Criterion<AddressItem> from = Criterion.of(AddressItem.parse(address));
    return Rule.matchingAll(id, id, Verdict.DROP).matching(any(), from, any(), any(), any());
  }

  private static Rule on(ServiceItem service) {
    return Rule.matchingAll("r", "r", Verdict.DROP)
        .matching(any(), any(), any(), any(), Criterion.of(service));
  }

  @Test
  void groupsMayNestButNotInACircle() {
    base(List.of(group("a", "b", "c"), group("b", "c"), group("c", "10.0.0.1")));
    assertThatThrownBy(
            () -> base(List.of(group("a", "b"), group("b", "C"), group("c", "10.0.0.1", "a"))))
        .isInstanceOf(InvalidModel.class)
        .hasMessageContaining("no group inside itself")
        .hasMessageMatching(".*(a > b > c > a|b > c > a > b|c > a > b > c).*");
  }

  @Test
  void groupsNestToAHundredLevelsAndNoDeeper() {
    List<AddressObject> chain =
        IntStream.range(0, 150)
            .mapToObj(i -> group("g" + i, i == 149 ? "10.0.0.1" : "g" + (i + 1)))
            .toList();
    assertThatThrownBy(() -> base(chain)).hasMessageContaining("at most 100 levels");
    assertThat(base(chain.subList(50, 150)).addresses()).hasSize(100);
    assertThatThrownBy(() -> base(chain.subList(49, 150))).hasMessageContaining("at most 100");
    assertThatThrownBy(() -> base(chain.reversed().subList(0, 101)))
        .hasMessageContaining("at most 100");
  }

  @Test
  void everyNameThatIsMentionedExists() {
    Rule rule = Rule.matchingAll("r", "Kiosks", Verdict.ALLOW);
    Rule lost = rule.matching(Criterion.of("outside"), any(), any(), any(), any());
    assertThatThrownBy(() -> base(List.of(), lost))
        .isInstanceOf(InvalidModel.class)
        .hasMessage("rule \"Kiosks\": expected a known zone, found \"outside\"");
    assertThatThrownBy(() -> base(List.of(), rule, rule)).hasMessageContaining("\"r\" twice");
    assertThatThrownBy(() -> base(List.of(group("X", "10.0.0.1"), group("x", "10.0.0.2"))))
        .hasMessageContaining("each name once");
  }

  @Test
  void usersOfAnObjectAreFoundThroughGroups() {
    Rule direct = from("r1", "inner");
    Criterion<AddressItem> others = new Criterion<>(List.of(), List.of(AddressItem.parse("OUTER")));
    Rule through =
        Rule.matchingAll("r2", "through", Verdict.ALLOW)
            .matching(any(), any(), any(), others, any());
    Rule other = Rule.matchingAll("r3", "other", Verdict.ALLOW);
    Rulebase base =
        base(List.of(group("inner", "10.0.0.1"), group("outer", "Inner")), direct, through, other);
    assertThat(base.rulesUsing(ObjectKind.ADDRESS, "inner")).containsExactly(direct, through);
    assertThat(base.rulesUsing(ObjectKind.ADDRESS, "outer")).containsExactly(through);
    assertThat(base.rulesUsing(ObjectKind.ZONE, "inside")).isEmpty();
  }

  @Test
  void namesNeverReadLikeLiterals() {
    for (String name : List.of("10 net", "tcp", "a:b", "a/b", " a", "any", "")) {
      assertThatThrownBy(() -> new Zone(name, List.of(), ""))
          .as(name)
          .isInstanceOf(InvalidModel.class)
          .hasMessageContaining("zone name");
    }
    assertThat(new Zone("Größe & Co. (north)", List.of(), "").name()).startsWith("Größe");
  }

  @Test
  void rulesCheckTheirOwnWords() {
    assertThatThrownBy(() -> Rule.matchingAll("r", "two\nlines", Verdict.DROP))
        .hasMessageContaining("rule name");
    assertThatThrownBy(() -> Rule.matchingAll("no good", "x", Verdict.DROP))
        .hasMessageContaining("rule id");
  }

  @Test
  void whatIsSaidTwiceIsRefused() {
    Rule rule = Rule.matchingAll("r", "Kiosks", Verdict.ALLOW);
    Section first = new Section("s", "Rules", List.of(rule));
    Rulebase one = base(List.of(), rule);
    assertThatThrownBy(() -> one.withSections(List.of(first, new Section("s", "More", List.of()))))
        .hasMessage("sections: expected each id once, found \"s\" twice");
    SavedCheck check = new SavedCheck("Kiosks print", "tcp/9100", Verdict.ALLOW, null);
    assertThat(one.withChecks(List.of(check)).checks()).containsExactly(check);
    assertThatThrownBy(() -> one.withChecks(List.of(check, check)))
        .hasMessageContaining("check names: expected each name once");
    List<SavedCheck> most =
        IntStream.range(0, SavedCheck.MOST)
            .mapToObj(i -> new SavedCheck("c" + i, "tcp/9100", Verdict.ALLOW, null))
            .toList();
    assertThat(one.withChecks(most).checks()).isEqualTo(most);
    List<SavedCheck> tooMany = new ArrayList<>(most);
    tooMany.add(check);
    assertThatThrownBy(() -> one.withChecks(tooMany))
        .hasMessage("checks: expected at most %d, found %d", SavedCheck.MOST, SavedCheck.MOST + 1);
  }

  @Test
  void vocabulariesAreOfDifferentCoordinates() {
    Vocabulary people = new Vocabulary(Coordinate.PERSON, "1", List.of("ada"), List.of());
    assertThatThrownBy(() -> base(List.of()).withPinned(List.of(people, people)))
        .hasMessageContaining("each coordinate once");
    Rulebase with = base(List.of()).withPinned(List.of(people));
    assertThat(with.pinned()).containsExactly(people);
    assertThat(with.named()).containsExactly(people, FileKinds.vocabulary());
    Vocabulary files = new Vocabulary(Coordinate.FILE_KIND, "1", List.of("ledger"), List.of());
    assertThat(base(List.of()).withPinned(List.of(files)).named()).containsExactly(files);
  }

  @Test
  void namesMeanTheSameWhereAllThatTheyStandForIsTheSame() {
    Rulebase one = base(List.of(group("a", "10.0.0.1")));
    assertThat(one.namesMeanAsIn(one.named("another"))).isTrue();
    assertThat(one.named("another").name()).isEqualTo("another");
    Zone inside = new Zone("inside", List.of(), "");
    List<ServiceObject> services =
        List.of(new ServiceObject("web", List.of(ServiceItem.parse("tcp/443")), ""));
    Vocabulary people = new Vocabulary(Coordinate.PERSON, "1", List.of("ada"), List.of());
    Feed feed =
        new Feed(
            "coast",
            FeedKind.COUNTRIES,
            "1",
            List.of(new FeedSet.Addresses("shore", AddressSet.EMPTY)));
    for (Rulebase other :
        List.of(
            base(List.of(group("a", "10.0.0.2"))),
            one.with(List.of(inside), one.addresses(), services, one.sections()),
            one.with(List.of(), one.addresses(), List.of(), one.sections()),
            one.withFeeds(List.of(feed)),
            one.withPinned(List.of(people)))) {
      assertThat(one.namesMeanAsIn(other)).as(other.toString()).isFalse();
      assertThat(one).isNotEqualTo(other);
    }
    assertThat(one).hasToString("test (0 rules)");
  }

  @Test
  void serviceGroupsAreFollowedToo() {
    Rule through = on(ServiceItem.parse("Outer"));
    Rule other = Rule.matchingAll("r2", "other", Verdict.ALLOW);
    List<ServiceObject> services =
        List.of(
            new ServiceObject("outer", List.of(ServiceItem.parse("middle")), ""),
            new ServiceObject("middle", List.of(ServiceItem.parse("inner")), ""),
            new ServiceObject("inner", List.of(ServiceItem.parse("tcp/443")), ""));
    List<Section> sections = List.of(new Section("s", "Rules", List.of(through, other)));
    Rulebase base = new Rulebase("test", List.of(), List.of(), services, sections);
    assertThat(base.rulesUsing(ObjectKind.SERVICE, "inner")).containsExactly(through);
    assertThatThrownBy(
            () -> new Rulebase("test", List.of(), List.of(), services.subList(0, 2), sections))
        .hasMessage("service \"middle\": expected a known service, found \"inner\"");
  }

  @Test
  void rulesMatchAlikeIfTheySayTheSameOfEveryConnection() {
    Rule all = Rule.matchingAll("r", "all", Verdict.ALLOW);
    Criterion<String> zone = Criterion.of("inside");
    Criterion<AddressItem> host = Criterion.of(AddressItem.parse("10.0.0.1"));
    Criterion<ServiceItem> web = Criterion.of(ServiceItem.parse("tcp/443"));
    Criterion<String> z = Criterion.any();
    Criterion<AddressItem> a = Criterion.any();
    Criterion<ServiceItem> s = Criterion.any();
    assertThat(all.matchesLike(Rule.matchingAll("r2", "other", Verdict.DROP))).isTrue();
    for (Rule other :
        List.of(
            all.matching(zone, a, z, a, s),
            all.matching(z, host, z, a, s),
            all.matching(z, a, zone, a, s),
            all.matching(z, a, z, host, s),
            all.matching(z, a, z, a, web),
            all.asking(Map.of(Coordinate.SITE, Criterion.of("quay.example"))))) {
      assertThat(all.matchesLike(other)).as(other.toString()).isFalse();
      assertThat(other.matchesLike(other.enabled(false))).isTrue();
    }
  }

  @Test
  void criteriaHaveAsManyItemsAsIsSaidAndNoMore() {
    String[] most =
        IntStream.range(0, Criterion.MAX_ITEMS).mapToObj(i -> "i" + i).toArray(String[]::new);
    assertThat(Criterion.of(most).items()).hasSize(Criterion.MAX_ITEMS);
    String[] more = Arrays.copyOf(most, most.length + 1);
    more[most.length] = "one more";
    assertThatThrownBy(() -> Criterion.of(more)).hasMessageContaining("at most 5000, found 5001");
    Criterion<String> less = new Criterion<>(List.of(), List.of("a"));
    assertThat(less.isAny()).isFalse();
    assertThat(Criterion.any().isAny()).isTrue();
    assertThat(less)
        .isNotEqualTo(Criterion.of("a"))
        .isNotEqualTo(new Criterion<>(List.of("a"), List.of("a")));
    assertThat(less.hashCode()).isNotEqualTo(Criterion.of("a").hashCode());
  }

  @Test
  void noNameGoesThatTheSameRulesStillMention() {
    Rule rule =
        Rule.matchingAll("r", "r", Verdict.DROP)
            .matching(
                Criterion.of("quay"),
                Criterion.of(new AddressItem.Named("ships")),
                Criterion.any(),
                Criterion.any(),
                Criterion.of(new ServiceItem.Named("web")))
            .asking(Map.of(Coordinate.SITE, Criterion.of("ours")))
            .handled("steady", "closed");
    List<Section> sections = List.of(new Section("s", "S", List.of(rule)));
    RatePlan plan =
        new RatePlan("steady", Rate.parse("1 Mbit/s"), null, RatePlan.Counted.ALL_RULES, null, "");
    Notice closed = new Notice("closed", "Closed", "Ask the harbour.");
    GatewaySettings gatewaySettings = new GatewaySettings(List.of(plan), List.of(closed), null);
    Rulebase base =
        new Rulebase(
            "b",
            List.of(new Zone("quay", List.of(), "")),
            List.of(new AddressObject("ships", List.of(AddressItem.parse("10.0.0.1")), "")),
            List.of(new ServiceObject("web", List.of(ServiceItem.parse("tcp/80")), "")),
            List.of(new TermObject(ObjectKind.HOST_LIST, "ours", List.of("quay.example"), "")),
            List.of(),
            List.of(),
            gatewaySettings,
            sections);
    assertThatThrownBy(
            () -> base.with(List.of(), base.addresses(), base.services(), base.sections()))
        .hasMessageContaining("\"quay\"");
    assertThatThrownBy(() -> base.with(base.zones(), List.of(), base.services(), base.sections()))
        .hasMessageContaining("\"ships\"");
    assertThatThrownBy(() -> base.with(base.zones(), base.addresses(), List.of(), base.sections()))
        .hasMessageContaining("\"web\"");
    assertThatThrownBy(() -> base.withTermObjects(List.of(), base.sections()))
        .hasMessageContaining("\"ours\"");
    GatewaySettings noNotice = new GatewaySettings(List.of(plan), List.of(), null);
    assertThatThrownBy(() -> base.withGatewaySettings(noNotice, base.sections()))
        .hasMessageContaining("\"closed\"");
    GatewaySettings noPlan = new GatewaySettings(List.of(), List.of(closed), null);
    assertThatThrownBy(() -> base.withGatewaySettings(noPlan, base.sections()))
        .hasMessageContaining("\"steady\"");
    assertThat(base.withTermObjects(base.termObjects(), base.sections())).isEqualTo(base);
  }

  private static Feed feed(String name, FeedKind kind, String... sets) {
    return new Feed(
        name,
        kind,
        "1",
        Arrays.stream(sets)
            .map(
                set ->
                    kind == FeedKind.CATEGORIES
                        ? new FeedSet.Hosts(set, Set.of(SitePattern.parse("quay.example")))
                        : (FeedSet) new FeedSet.Addresses(set, AddressSet.ALL))
            .toList());
  }

  @Test
  void setsOfAddressesOfFeedsAreNamesOfAddressesAndOthersAreNot() {
    Feed lands = feed("lands", FeedKind.COUNTRIES, "north", "south");
    Feed hosts = feed("kinds", FeedKind.CATEGORIES, "games");
    Rulebase base = base(List.of()).withFeeds(List.of(lands, hosts));
    assertThat(
            base.withSections(
                base(List.of(group("north", "10.0.0.1")), from("r", "north")).sections()))
        .isNotNull();
    Rulebase games = base(List.of(group("games", "10.0.0.1")), from("r", "games"));
    assertThatThrownBy(() -> base.withSections(games.sections()))
        .hasMessage("rule \"r\": expected a known address, found \"games\"");
    assertThat(games.withFeeds(List.of(lands, hosts)).feeds()).containsExactly(lands, hosts);
    assertThatThrownBy(() -> base(List.of(group("South", "10.0.0.1"))).withFeeds(List.of(lands)))
        .hasMessage("address names: expected each name once, found \"south\" twice");
    assertThatThrownBy(
            () -> base(List.of()).withFeeds(List.of(hosts, feed("Kinds", FeedKind.COUNTRIES))))
        .hasMessage("feed names: expected each name once, found \"Kinds\" twice");
    List<AddressObject> all = List.of(group("all", "north", "west"));
    assertThatThrownBy(() -> base.with(base.zones(), all, List.of(), base.sections()))
        .hasMessageContaining("\"west\"");
  }

  @Test
  void serviceGroupsMayNotNestInACircleEither() {
    List<ServiceObject> circle =
        List.of(
            new ServiceObject("a", List.of(ServiceItem.parse("b")), ""),
            new ServiceObject("b", List.of(ServiceItem.parse("a")), ""));
    List<Section> sections = base(List.of()).sections();
    assertThatThrownBy(() -> new Rulebase("test", List.of(), List.of(), circle, sections))
        .hasMessageContaining("service groups: expected no group inside itself");
  }

  @Test
  void usualPortsAreKnownOfAnApplication() {
    Rule usual = on(new ServiceItem.UsualPorts());
    List<Section> sections = List.of(new Section("s", "S", List.of(usual)));
    Vocabulary without =
        new Vocabulary(Coordinate.APPLICATION, "1", List.of("Quillbox"), List.of(), List.of());
    Vocabulary with =
        new Vocabulary(
            Coordinate.APPLICATION,
            "1",
            List.of("Quillbox"),
            List.of(),
            List.of(
                new ApplicationFact(
                    "Quillbox",
                    IntSet.of(0),
                    List.of(ServiceLiteral.parse("tcp/443")),
                    List.of(),
                    List.of(),
                    List.of(),
                    IntSet.EMPTY)));
    Rulebase known = base(List.of()).withPinned(List.of(with)).withSections(sections);
    assertThat(known.rules()).containsExactly(usual);
    assertThatThrownBy(() -> base(List.of()).withPinned(List.of(without)).withSections(sections))
        .hasMessageContaining("nothing is known of the ports of applications");
    assertThatThrownBy(() -> known.withPinned(List.of(without)))
        .hasMessageContaining("nothing is known of the ports of applications");
  }

  @Test
  void rulesAreAsManyAsIsSaidAndNoMore() {
    List<Rule> most =
        IntStream.range(0, Rulebase.MAX_RULES)
            .mapToObj(i -> Rule.matchingAll("r" + i, "r", Verdict.DROP))
            .toList();
    Rulebase empty = base(List.of());
    assertThat(empty.withSections(List.of(new Section("s", "S", most))).rules())
        .hasSameSizeAs(most);
    List<Rule> tooMany = new ArrayList<>(most);
    tooMany.add(Rule.matchingAll("r", "r", Verdict.DROP));
    assertThatThrownBy(() -> empty.withSections(List.of(new Section("s", "S", tooMany))))
        .hasMessage("rules: expected at most 200000, found 200001");
  }
}
