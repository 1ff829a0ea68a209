package dev.ironsieve.core.edition;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.ironsieve.core.analysis.Finding;
import dev.ironsieve.core.analysis.LiveAnalysis;
import dev.ironsieve.core.difference.Aspect;
import dev.ironsieve.core.difference.Difference;
import dev.ironsieve.core.difference.Differences;
import dev.ironsieve.core.edit.Edit;
import dev.ironsieve.core.edit.MissingTarget;
import dev.ironsieve.core.edit.Touched;
import dev.ironsieve.core.matcher.Matcher;
import dev.ironsieve.core.model.AddressItem;
import dev.ironsieve.core.model.AddressObject;
import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.Feed;
import dev.ironsieve.core.model.FeedKind;
import dev.ironsieve.core.model.FeedSet;
import dev.ironsieve.core.model.GatewaySettings;
import dev.ironsieve.core.model.InvalidModel;
import dev.ironsieve.core.model.ObjectKind;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Section;
import dev.ironsieve.core.model.SitePattern;
import dev.ironsieve.core.model.TermObject;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.sets.Address;
import dev.ironsieve.core.sets.AddressRange;
import dev.ironsieve.core.sets.AddressSet;
import dev.ironsieve.core.sets.Family;
import dev.ironsieve.core.text.ConnectionLine;
import dev.ironsieve.core.twin.Rounds;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;

/** Feeds in rules, and what another edition of one changes. */
class FeedTest {
  private static final List<String> HOSTS =
      List.of(
          "*.dice.example",
          "dice.example",
          "www.dice.example",
          "*.play.dice.example",
          "poker.test",
          "*.test");
  private static final List<String> SITES =
      List.of(
          "dice.example",
          "www.dice.example",
          "a.play.dice.example",
          "play.dice.example",
          "poker.test",
          "x.test",
          "else.where");

  private static FeedSet addresses(String name, String... ranges) {
    return new FeedSet.Addresses(
        name, AddressSet.of(Arrays.stream(ranges).map(AddressRange::parse).toList()));
  }

  private static FeedSet hosts(String name, List<String> patterns) {
    return new FeedSet.Hosts(
        name,
        patterns.stream()
            .map(SitePattern::parse)
            .collect(Collectors.toCollection(LinkedHashSet::new)));
  }

  private static Feed countries(String edition, FeedSet... sets) {
    return new Feed("Registry", FeedKind.COUNTRIES, edition, List.of(sets));
  }

  private static Feed categories(String edition, FeedSet... sets) {
    return new Feed("Sorted hosts", FeedKind.CATEGORIES, edition, List.of(sets));
  }

  private static Rule from(String id, Verdict verdict, String... items) {
    Rule any = Rule.matchingAll(id, id, verdict);
    return any.matching(
        any.fromZones(),
        Criterion.of(Arrays.stream(items).map(AddressItem::parse).toArray(AddressItem[]::new)),
        any.toZones(),
        any.toAddresses(),
        any.services());
  }

  private static Rule to(String id, Verdict verdict, Criterion<String> sites) {
    return Rule.matchingAll(id, id, verdict).asking(Map.of(Coordinate.SITE, sites));
  }

  private static Rulebase base(List<Feed> more, Rule... rules) {
    List<Feed> feeds = new ArrayList<>(more);
    if (feeds.stream().noneMatch(feed -> feed.name().equals(OLD.name()))) {
      feeds.add(OLD);
    }
    return new Rulebase(
        "b",
        List.of(),
        List.of(new AddressObject("both", List.of(AddressItem.parse("Vestmark")), "")),
        List.of(),
        List.of(new TermObject(ObjectKind.HOST_LIST, "ours", List.of("dice.example"), "")),
        List.of(),
        feeds,
        GatewaySettings.NONE,
        List.of(new Section("s", "S", List.of(rules))));
  }

  private static final Feed OLD =
      countries("1", addresses("Vestmark", "192.0.2.0/25"), addresses("Sund", "198.51.100.0/24"));

  @Test
  void aCountryIsItsAddressesInTheAnalysisAndInTheMatcher() {
    Rulebase base =
        base(
            List.of(OLD),
            from("a", Verdict.DROP, "192.0.2.0/24"),
            from("b", Verdict.ALLOW, "both"),
            from("c", Verdict.ALLOW, "Sund"));
    Matcher matcher = new Matcher(base);
    assertThat(decider(matcher, "192.0.2.5", base)).contains("a");
    assertThat(decider(matcher, "198.51.100.9", base)).contains("c");
    assertThat(decider(matcher, "203.0.113.1", base)).isEmpty();
    LiveAnalysis analysis = new LiveAnalysis(base);
    assertThat(analysis.findings("b")).extracting(Finding::kind).contains(Finding.Kind.SHADOWED);
    assertThat(analysis.findings("c"))
        .extracting(Finding::kind)
        .doesNotContain(Finding.Kind.SHADOWED, Finding.Kind.EMPTY);
  }

  /** The rules stay the same objects, and mean something else. */
  @Test
  void theAnalysisFollowsAnotherEdition() {
    Rulebase base =
        base(
            List.of(OLD),
            from("a", Verdict.DROP, "Sund"),
            from("b", Verdict.ALLOW, "both"),
            from("c", Verdict.ALLOW, "203.0.113.0/24"));
    LiveAnalysis live = new LiveAnalysis(base);
    assertThat(live.findings("c")).extracting(Finding::kind).doesNotContain(Finding.Kind.SHADOWED);
    Edit put =
        new Edit.PutFeed(
            countries(
                "2", addresses("Vestmark", "192.0.2.0/26"), addresses("Sund", "203.0.113.0/24")));
    Rulebase after = put.apply(base);
    live.update(after, Touched.ruleIds(put.touched(base)));
    LiveAnalysis anew = new LiveAnalysis(after);
    assertThat(live.findings("c")).extracting(Finding::kind).contains(Finding.Kind.SHADOWED);
    assertThat(live.findings()).isEqualTo(anew.findings());
    assertThat(live.standings()).isEqualTo(anew.standings());
    Matcher matcher = new Matcher(live.index());
    assertThat(decider(matcher, "203.0.113.1", after)).contains("a");
    assertThat(decider(matcher, "192.0.2.100", after)).isEmpty();
    Difference difference =
        Differences.between(
            new LiveAnalysis(base).index(), base, after, Aspect.VERDICT, Differences.STEPS);
    assertThat(difference.parts())
        .hasSameSizeAs(Differences.between(base, after, Aspect.VERDICT).parts())
        .isNotEmpty();
  }

  private static Optional<String> decider(Matcher matcher, String from, Rulebase base) {
    return matcher
        .decide(ConnectionLine.parse("from " + from + " to 10.0.0.1 tcp/443", base))
        .map(Rule::id);
  }

  @Test
  void hostsOfACategoryAreWhatEachPatternMeans() {
    for (int seed = 0; seed < Rounds.of(200); seed++) {
      Random random = new Random(seed);
      List<String> games = some(random);
      List<String> money = some(random);
      String except = HOSTS.get(random.nextInt(HOSTS.size()));
      Criterion<String> asked =
          random.nextBoolean()
              ? new Criterion<>(List.of("games"), List.of(except))
              : new Criterion<>(List.of("Money", except), List.of("ours"));
      Rulebase base =
          base(
              List.of(categories("1", hosts("Games", games), hosts("Money", money))),
              to("r", Verdict.ALLOW, asked));
      for (String site : SITES) {
        boolean expected =
            asked.items().stream().anyMatch(item -> means(item, site, games, money))
                && asked.except().stream().noneMatch(item -> means(item, site, games, money));
        Connection connection =
            new Connection(
                Connection.Endpoint.NOT_KNOWN,
                Connection.Endpoint.NOT_KNOWN,
                Connection.UNKNOWN,
                Connection.UNKNOWN,
                Connection.UNKNOWN,
                Map.of(Coordinate.SITE, site));
        assertThat(new Matcher(base).decide(connection).isPresent())
            .as("seed %d: %s of %s and %s, %s", seed, asked, games, money, site)
            .isEqualTo(expected);
      }
    }
  }

  private static List<String> some(Random random) {
    Set<String> out = new LinkedHashSet<>();
    for (int i = random.nextInt(3); i >= 0; i--) {
      out.add(HOSTS.get(random.nextInt(HOSTS.size())));
    }
    return List.copyOf(out);
  }

  private static boolean means(String item, String site, List<String> games, List<String> money) {
    List<String> patterns =
        switch (item) {
          case "games" -> games;
          case "Money" -> money;
          case "ours" -> List.of("dice.example");
          default -> List.of(item);
        };
    return patterns.stream()
        .anyMatch(p -> p.startsWith("*") ? site.endsWith(p.substring(1)) : site.equals(p));
  }

  /** Every address of a small world: the reported change of a rule is the change of its match. */
  @Test
  void anotherEditionTellsWhatEachRuleGainsAndLosesAndNothingElse() {
    for (int seed = 0; seed < Rounds.of(150); seed++) {
      Random random = new Random(seed);
      Feed old = countries("1", random(random, "Vestmark"), random(random, "Sund"));
      Feed next = countries("2", random(random, "Vestmark"), random(random, "Sund"));
      Rulebase base =
          base(
              List.of(old),
              from("a", Verdict.ALLOW, "both"),
              from("b", Verdict.DROP, "Vestmark", "Sund"),
              from("c", Verdict.ALLOW, "10.0.0.0/28"));
      FeedChange.Compared compared = FeedChange.compare(base, next);
      Difference difference =
          Differences.between(compared.before(), compared.after(), Aspect.VERDICT);
      assertThat(difference.complete()).isTrue();
      Rulebase after = new Edit.PutFeed(next).apply(base);
      Matcher was = new Matcher(base);
      Matcher is = new Matcher(after);
      Matcher now = new Matcher(compared.after());
      Map<String, RuleChange> told =
          compared.rules().stream().collect(Collectors.toMap(c -> c.rule().id(), c -> c));
      assertThat(told).doesNotContainKey("c");
      for (int i = 0; i < 16; i++) {
        Address address = new Address(Family.IPV4, 0, (10L << 24) + i);
        Connection c = ConnectionLine.parse("from " + address + " to 10.9.0.1 tcp/443", base);
        assertThat(now.decide(c).map(Rule::id)).isEqualTo(is.decide(c).map(Rule::id));
        boolean other = !was.decide(c).map(Rule::verdict).equals(is.decide(c).map(Rule::verdict));
        // The default rule drops as the second does.
        other &=
            was.decide(c).map(Rule::verdict).orElse(Verdict.DROP)
                != is.decide(c).map(Rule::verdict).orElse(Verdict.DROP);
        assertThat(difference.part(c).isPresent())
            .as("seed %d, %s", seed, address)
            .isEqualTo(other);
        for (String id : List.of("a", "b")) {
          boolean before = holds(id, old, address);
          boolean then = holds(id, next, address);
          RuleChange change = told.get(id);
          assertThat(change != null && in(change.gained(), address)).isEqualTo(!before && then);
          assertThat(change != null && in(change.lost(), address)).isEqualTo(before && !then);
        }
      }
    }
  }

  private static FeedSet random(Random random, String name) {
    List<String> ranges = new ArrayList<>();
    for (int i = 0; i < 16; i++) {
      if (random.nextInt(3) == 0) {
        ranges.add("10.0.0." + i);
      }
    }
    return addresses(name, ranges.toArray(String[]::new));
  }

  private static boolean holds(String rule, Feed feed, Address address) {
    boolean vestmark = ((FeedSet.Addresses) feed.set("vestmark")).addresses().contains(address);
    boolean sund = ((FeedSet.Addresses) feed.set("Sund")).addresses().contains(address);
    return vestmark || (rule.equals("b") && sund);
  }

  private static boolean in(List<String> ranges, Address address) {
    return ranges.stream()
        .anyMatch(r -> AddressRange.parse(r.substring("from ".length())).contains(address));
  }

  @Test
  void aSetThatIsGoneIsToldOfEveryRuleThatSaysIt() {
    Rulebase base =
        base(
            List.of(OLD, categories("1", hosts("Games", List.of("*.dice.example")))),
            from("a", Verdict.ALLOW, "both"),
            from("b", Verdict.ALLOW, "Sund"),
            to("c", Verdict.ALLOW, Criterion.of("Games")),
            to("d", Verdict.ALLOW, Criterion.of("www.dice.example")));
    Feed fewer = countries("2", addresses("Sund", "198.51.100.0/24"));
    assertThat(FeedChange.compare(base, fewer).rules())
        .containsExactly(
            new RuleChange(
                base.rules().get(0), List.of(), List.of("from 192.0.2.0/25"), List.of("Vestmark")));
    assertThatThrownBy(() -> new Edit.PutFeed(fewer).apply(base))
        .isInstanceOf(InvalidModel.class)
        .hasMessageContaining("Vestmark");
    Feed other = categories("2", hosts("Money", List.of("poker.test")));
    List<RuleChange> changes = FeedChange.compare(base, other).rules();
    assertThat(changes).hasSize(1);
    assertThat(changes.getFirst().rule().id()).isEqualTo("c");
    assertThat(changes.getFirst().unknown()).containsExactly("Games");
    assertThat(changes.getFirst().lost())
        .containsExactlyInAnyOrder("*.dice.example, else", "www.dice.example");
  }

  @Test
  void aFeedIsTakenAndTakenBack() {
    Rulebase empty = Rulebase.empty("b");
    Edit first = new Edit.PutFeed(OLD);
    Rulebase one = first.apply(empty);
    assertThat(one.feed("REGISTRY")).contains(OLD);
    assertThat(first.inverse(empty).orElseThrow().apply(one)).isEqualTo(empty);
    Edit second = new Edit.PutFeed(countries("2", addresses("Sund", "198.51.100.0/25")));
    Rulebase two = second.apply(one);
    assertThat(two.feeds()).hasSize(1);
    assertThat(second.inverse(one).orElseThrow().apply(two)).isEqualTo(one);
    Edit none = new Edit.DeleteFeed("registry");
    assertThat(none.apply(two)).isEqualTo(empty);
    assertThat(none.inverse(two).orElseThrow().apply(empty)).isEqualTo(two);
    assertThat(none.touched(two))
        .isEqualTo(second.touched(one))
        .containsExactly(new Touched("feed", "registry"));
    assertThatThrownBy(() -> none.apply(empty)).isInstanceOf(MissingTarget.class);
  }

  @Test
  void namesAreUniqueAmongFeedsAndObjects() {
    Feed both = countries("1", addresses("BOTH", "192.0.2.1"), addresses("Vestmark", "192.0.2.2"));
    assertThatThrownBy(() -> base(List.of(both)))
        .isInstanceOf(InvalidModel.class)
        .hasMessageContaining("address names: expected each name once")
        .hasMessageContaining("\"BOTH\" twice");
    assertThatThrownBy(
            () -> base(List.of(OLD, categories("1", hosts("Ours", List.of("a.example"))))))
        .hasMessageContaining("host list names: expected each name once");
    assertThatThrownBy(() -> countries("1", addresses("A", "::/0"), addresses("a", "::/0")))
        .hasMessageContaining("each set once");
    assertThatThrownBy(() -> categories("1", addresses("A", "::/0")))
        .hasMessageContaining("sets of hosts");
    assertThatThrownBy(
            () -> new Feed("Block", FeedKind.ADDRESSES, "1", List.of(addresses("X", "::/0"))))
        .hasMessageContaining("called as the feed is");
    assertThatThrownBy(() -> hosts("dice.example", List.of("a.example")))
        .hasMessageContaining("does not read like a host");
  }

  @Test
  void theShareOfGrowthIsTheLargestOfEntriesAndAddresses() {
    Feed one = countries("1", addresses("A", "192.0.2.0/30", "192.0.2.8/30"));
    assertThat(FeedChange.share(one, one)).isZero();
    assertThat(FeedChange.share(one, countries("2", addresses("A", "192.0.2.0/30"))))
        .isEqualTo(0.5);
    Feed wide = countries("2", addresses("A", "192.0.2.0/30", "192.0.2.8/29"));
    assertThat(FeedChange.share(one, wide)).isEqualTo(0.5);
    assertThat(FeedChange.share(one, countries("2", addresses("A", "0.0.0.0/0"))))
        .isEqualTo((0x1p32 - 8) / 8);
    Feed six = countries("2", addresses("A", "192.0.2.0/30", "192.0.2.8/30", "::/0"));
    assertThat(FeedChange.share(one, six)).isEqualTo(1);
    assertThat(AddressSet.ALL.size(Family.IPV6)).isEqualTo(0x1p128);
    Feed two = categories("1", hosts("G", List.of("a.example", "b.example")));
    Feed three = categories("2", hosts("G", List.of("a.example", "b.example", "c.example")));
    assertThat(FeedChange.share(two, three)).isEqualTo(0.5);
  }

  @Test
  void setsAreComparedByWhatTheyHold() {
    Feed next =
        countries("2", addresses("Vestmark", "192.0.2.64-192.0.2.140"), addresses("Nes", "::1"));
    assertThat(FeedChange.sets(OLD, next))
        .containsExactly(
            new FeedChange.SetChange(
                "Vestmark", List.of("192.0.2.128-192.0.2.140"), List.of("192.0.2.0/26")),
            new FeedChange.SetChange("Nes", List.of("::1"), List.of()),
            new FeedChange.SetChange("Sund", List.of(), List.of("198.51.100.0/24")));
    assertThat(FeedChange.sets(OLD, OLD)).isEmpty();
  }
}
