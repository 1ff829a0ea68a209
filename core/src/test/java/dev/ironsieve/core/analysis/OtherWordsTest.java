package dev.ironsieve.core.analysis;

import static org.assertj.core.api.Assertions.assertThat;

import dev.ironsieve.core.matcher.Matcher;
import dev.ironsieve.core.model.AddressItem;
import dev.ironsieve.core.model.ApplicationFact;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.GatewaySettings;
import dev.ironsieve.core.model.ObjectKind;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Section;
import dev.ironsieve.core.model.ServiceItem;
import dev.ironsieve.core.model.ServiceLiteral;
import dev.ironsieve.core.model.TermObject;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.model.Vocabulary;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.ruleindex.RuleIndex;
import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.space.Space;
import dev.ironsieve.core.twin.Rounds;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import org.junit.jupiter.api.Test;

/** Edits by which rules say hosts, times and states of devices that none said, or none says now. */
class OtherWordsTest {
  private static final List<String> SITES =
      List.of(
          "*.example",
          "*.quay.example",
          "www.quay.example",
          "www.quay.example/forms",
          "pier.example",
          "sign-in.reel.example",
          "ours");
  private static final List<String> TIMES =
      List.of(
          "weekdays 06:00-22:00",
          "mon,wed 22:00-04:00",
          "daily 11:30-13",
          "mon 06:00-08:00 in Europe/Oslo",
          "2026-12-24",
          "2026-12-24 to 2027-01-02",
          "late");
  private static final List<String> DEVICES =
      List.of(
          "managed",
          "has disk-lock",
          "managed, has disk-lock",
          "unmanaged, platform kelpos",
          "lacks fresh-updates",
          "healthy");

  private static final Vocabulary APPLICATIONS =
      new Vocabulary(
          Coordinate.APPLICATION,
          "e1",
          List.of("unidentified", "Reel", "Reel sign-in"),
          List.of(),
          List.of(
              new ApplicationFact(
                  "Reel",
                  IntSet.of(1),
                  List.of(ServiceLiteral.parse("tcp/443")),
                  List.of("*.reel.example"),
                  List.of("Reel sign-in"),
                  List.of(),
                  IntSet.EMPTY),
              new ApplicationFact(
                  "Reel sign-in",
                  IntSet.of(2),
                  List.of(ServiceLiteral.parse("tcp/443")),
                  List.of("sign-in.reel.example"),
                  List.of(),
                  List.of(),
                  IntSet.EMPTY)));

  private static final List<TermObject> OBJECTS =
      List.of(
          new TermObject(ObjectKind.HOST_LIST, "ours", List.of("www.quay.example", "a.test"), ""),
          new TermObject(ObjectKind.SCHEDULE, "late", List.of("daily 20:00-04:00"), ""),
          new TermObject(ObjectKind.DEVICE_STATE, "healthy", List.of("has disk-lock"), ""));

  /** Rules and objects, and random edits of them. */
  private static final class World {
    private final Random random;
    final List<Rule> rules = new ArrayList<>();
    final List<TermObject> objects = new ArrayList<>(OBJECTS);
    private int count;

    World(int seed) {
      random = new Random(seed);
    }

    private <T> T some(List<T> all) {
      return all.get(random.nextInt(all.size()));
    }

    private Criterion<String> said(List<String> words) {
      List<String> items = new ArrayList<>();
      for (int i = random.nextInt(3); i > 0; i--) {
        items.add(some(words));
      }
      return new Criterion<>(items, random.nextInt(4) == 0 ? List.of(some(words)) : List.of());
    }

    Rule rule(String id) {
      Map<Coordinate, Criterion<String>> terms = new HashMap<>();
      if (random.nextInt(3) > 0) {
        terms.put(Coordinate.SITE, said(SITES));
      }
      if (random.nextInt(3) == 0) {
        terms.put(Coordinate.TIME, said(TIMES));
      }
      if (random.nextInt(3) == 0) {
        terms.put(Coordinate.DEVICE, said(DEVICES));
      }
      if (random.nextInt(3) == 0) {
        terms.put(Coordinate.APPLICATION, Criterion.of(some(List.of("Reel", "Reel sign-in"))));
      }
      Criterion<AddressItem> from =
          random.nextInt(4) == 0
              ? Criterion.of(AddressItem.parse(some(List.of("10.0.0.0/8", "10.1.0.0/16"))))
              : Criterion.any();
      Criterion<ServiceItem> service =
          random.nextInt(4) == 0 ? Criterion.of(ServiceItem.parse("tcp/443")) : Criterion.any();
      return Rule.matchingAll(id, id, some(List.of(Verdict.ALLOW, Verdict.DROP)))
          .matching(Criterion.any(), from, Criterion.any(), Criterion.any(), service)
          .asking(terms)
          .enabled(random.nextInt(8) > 0);
    }

    Rulebase base() {
      return new Rulebase(
          "b",
          List.of(),
          List.of(),
          List.of(),
          objects,
          List.of(APPLICATIONS),
          List.of(),
          GatewaySettings.NONE,
          List.of(new Section("s", "S", rules)));
    }

    /** Gives an object other members. */
    private void changeObject() {
      int at = random.nextInt(objects.size());
      TermObject was = objects.get(at);
      List<String> words =
          switch (was.kind()) {
            case HOST_LIST -> SITES;
            case SCHEDULE -> TIMES;
            default -> DEVICES;
          };
      List<String> literals = words.subList(0, words.size() - 1); // the last is the object's name
      Set<String> members = new HashSet<>(List.of(some(literals), some(literals)));
      objects.set(at, new TermObject(was.kind(), was.name(), List.copyOf(members), ""));
    }

    /** The ids of rules whose place has changed. */
    Set<String> edit() {
      Set<String> moved = new HashSet<>();
      int at = random.nextInt(rules.size());
      switch (random.nextInt(7)) {
        case 0 -> rules.add(at, rule("n" + count++));
        case 1 -> rules.set(at, rule(rules.get(at).id()));
        case 2 -> {
          if (rules.size() > 2) {
            rules.remove(at);
          }
        }
        case 3 -> {
          Rule rule = rules.remove(at);
          moved.add(rule.id());
          rules.add(random.nextInt(rules.size() + 1), rule);
        }
        case 4 -> changeObject();
        case 5 -> {
          changeObject();
          changeObject();
          rules.set(at, rule(rules.get(at).id()));
        }
        default -> {
          rules.set(at, rule(rules.get(at).id()));
          rules.add(random.nextInt(rules.size() + 1), rule("n" + count++));
        }
      }
      return moved;
    }
  }

  @Test
  void answersAreThoseOfAFreshAnalysis() {
    int others = 0;
    for (int seed = 0; seed < 2 + Rounds.of(120); seed++) {
      World world = new World(seed);
      for (int i = 0; i < 8; i++) {
        world.rules.add(world.rule("r" + i));
      }
      LocalDate day = seed % 2 == 0 ? null : LocalDate.of(2026, 12, 15).plusDays(seed % 23);
      LiveAnalysis live = new LiveAnalysis(world.base(), day);
      for (int step = 0; step < 15; step++) {
        Map<String, View> before = views(live);
        Rulebase was = live.rulebase();
        Set<String> moved = world.edit();
        Rulebase next =
            was.withTermObjects(world.objects, List.of(new Section("s", "S", world.rules)));
        LiveAnalysis.Changed changed = live.update(next, moved);
        others += next.namesMeanAsIn(was) ? 0 : 1;
        String as = "seed " + seed + ", step " + step + ", from " + day;
        assertThat(live.index().resolution().vocabularies()).as(as).isEqualTo(next.vocabularies());
        same(as, live, new LiveAnalysis(next, day));
        views(live)
            .forEach(
                (id, now) -> {
                  if (!now.equals(before.get(id))) {
                    assertThat(changed.answers()).as("%s: %s", as, id).contains(id);
                  }
                });
      }
    }
    assertThat(others).isGreaterThan(Rounds.least(500));
  }

  private static Rule saying(String id, Coordinate coordinate, String... words) {
    return Rule.matchingAll(id, id, Verdict.ALLOW).asking(Map.of(coordinate, Criterion.of(words)));
  }

  private static boolean follows(Rulebase before, List<Rule> rules) {
    Rulebase after = before.withSections(List.of(new Section("s", "S", rules)));
    return new LiveAnalysis(before).follow(after, Set.of()).isPresent();
  }

  @Test
  void otherHostsAreFollowedAndOtherCoordinatesAreNot() {
    World world = new World(0);
    Rule quay = saying("a", Coordinate.SITE, "*.quay.example");
    world.rules.addAll(List.of(quay, saying("b", Coordinate.SITE, "www.quay.example")));
    Rulebase base = world.base();
    assertThat(follows(base, List.of(quay, saying("b", Coordinate.SITE, "pier.example")))).isTrue();
    assertThat(follows(base, List.of(quay))).isTrue();
    Rule both = saying("c", Coordinate.SITE, "pier.example", "*.example");
    assertThat(follows(base, List.of(quay, world.rules.getLast(), both))).isTrue();
    assertThat(follows(base, List.of(quay, saying("b", Coordinate.FILE_KIND, "PDF")))).isFalse();
    List<Rule> otherTimes = List.of(quay, saying("b", Coordinate.TIME, "2026-12-24"));
    assertThat(follows(base, otherTimes)).isTrue(); // since there is a schedule
  }

  @Test
  void namesThatMeanOtherwiseAreNotFollowed() {
    World world = new World(0);
    Rule list = saying("a", Coordinate.SITE, "ours");
    world.rules.addAll(List.of(list, saying("b", Coordinate.SITE, "a.test")));
    Rulebase base = world.base();
    Rulebase other =
        base.withTermObjects(
            List.of(
                new TermObject(ObjectKind.HOST_LIST, "ours", List.of("b.test"), ""),
                OBJECTS.get(1),
                OBJECTS.get(2)),
            base.sections());
    RuleIndex index = new RuleIndex(base);
    assertThat(index.in(other)).isEmpty(); // no value is in both any more
    assertThat(index.in(base).orElseThrow().index().rule(0)).isSameAs(list);
    assertThat(other.hasObjectsOf(base)).isFalse();
    assertThat(base.hasObjectsOf(base.named("another"))).isTrue();
  }

  @Test
  void onlyAxesOnWhichOtherIsToldApartAreLaidOutAnew() {
    World world = new World(0);
    Rule quay = saying("a", Coordinate.SITE, "*.quay.example");
    Rule web =
        Rule.matchingAll("b", "b", Verdict.ALLOW)
            .matching(
                Criterion.any(),
                Criterion.any(),
                Criterion.any(),
                Criterion.any(),
                Criterion.of(ServiceItem.parse("tcp/443")));
    world.rules.addAll(List.of(quay, web));
    Rulebase base = world.base();
    Rulebase more =
        base.withSections(
            List.of(
                new Section(
                    "s", "S", List.of(quay, web, saying("c", Coordinate.SITE, "pier.example")))));
    RuleIndex index = new RuleIndex(base);
    int site = index.space().axis(Coordinate.SITE);
    RuleIndex.Relayout anew = index.in(more).orElseThrow();
    assertThat(anew.axes()).containsExactly(site);
    assertThat(anew.index().update(List.of(quay), Set.of())).isPresent();
    assertThat(anew.index().in(more).orElseThrow().axes())
        .as("the rule that is gone told services apart")
        .containsExactly(Space.SERVICE);
  }

  /** Each says as much as can be told apart. */
  @Test
  void whatIsTooMuchForBothIsDoneFromTheStart() {
    List<Rule> some = new ArrayList<>();
    List<Rule> others = new ArrayList<>();
    for (int i = 0; i < 8; i++) {
      some.add(saying("a" + i, Coordinate.DEVICE, "has a" + i));
      others.add(saying("b" + i, Coordinate.DEVICE, "has b" + i));
    }
    World world = new World(0);
    world.rules.addAll(some);
    Rulebase base = world.base();
    assertThat(follows(base, others)).isFalse();
    LiveAnalysis live = new LiveAnalysis(base);
    live.update(base.withSections(List.of(new Section("s", "S", others))), Set.of());
    same("from the start", live, new LiveAnalysis(live.rulebase()));
  }

  private static Map<String, View> views(LiveAnalysis live) {
    Map<String, View> out = new HashMap<>();
    for (Rule rule : live.rulebase().rules()) {
      out.put(rule.id(), new View(live.standing(rule.id()), live.findings(rule.id())));
    }
    return out;
  }

  /** The same holds of every rule, and what is shown for it does show it. */
  private static void same(String as, LiveAnalysis live, LiveAnalysis anew) {
    Matcher matcher = new Matcher(live.rulebase());
    for (Rule rule : live.rulebase().rules()) {
      String where = as + ": " + rule;
      Standing standing = live.standing(rule.id());
      assertThat(standing.getClass()).as(where).isEqualTo(anew.standing(rule.id()).getClass());
      if (standing instanceof Standing.Decides decides) {
        assertThat(matcher.decide(decides.witness()).map(Rule::id)).as(where).contains(rule.id());
      }
      if (standing instanceof Standing.Covered covered) {
        Standing.Covered other = (Standing.Covered) anew.standing(rule.id());
        assertThat(covered.kind()).as(where).isEqualTo(other.kind());
        assertThat(covered.causes()).as(where).hasSameSizeAs(other.causes());
      }
      assertThat(live.findings(rule.id()))
          .as(where)
          .extracting(Finding::kind)
          .isEqualTo(anew.findings(rule.id()).stream().map(Finding::kind).toList());
      assertThat(live.findings(rule.id()))
          .as(where)
          .extracting(Finding::words)
          .isEqualTo(anew.findings(rule.id()).stream().map(Finding::words).toList());
      for (Finding finding : live.findings(rule.id())) {
        if (finding.witness() != null) {
          assertThat(matcher.decide(finding.witness()).map(Rule::id).orElse(null))
              .as("%s: %s", where, finding)
              .isEqualTo(
                  finding.kind() == Finding.Kind.REDUNDANT_BELOW
                      ? rule.id() // the other one would
                      : finding.decidedBy());
        }
      }
      assertThat(live.reach(rule.id())).as(where).isEqualTo(anew.reach(rule.id()));
    }
  }
}
