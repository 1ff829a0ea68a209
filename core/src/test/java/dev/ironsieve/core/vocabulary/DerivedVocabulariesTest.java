package dev.ironsieve.core.vocabulary;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.ironsieve.core.analysis.Finding;
import dev.ironsieve.core.analysis.LiveAnalysis;
import dev.ironsieve.core.difference.Aspect;
import dev.ironsieve.core.difference.Difference;
import dev.ironsieve.core.difference.Differences;
import dev.ironsieve.core.edit.Edit;
import dev.ironsieve.core.matcher.Matcher;
import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.GatewaySettings;
import dev.ironsieve.core.model.InvalidModel;
import dev.ironsieve.core.model.ObjectKind;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.ScheduleItem;
import dev.ironsieve.core.model.Section;
import dev.ironsieve.core.model.SitePattern;
import dev.ironsieve.core.model.TermObject;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.text.ConnectionLine;
import dev.ironsieve.core.twin.Rounds;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Hosts and times that people write themselves, against what is meant by each alone. */
class DerivedVocabulariesTest {
  private static final List<String> PATTERNS =
      List.of(
          "*.example",
          "*.quay.example",
          "quay.example",
          "www.quay.example",
          "www.quay.example/forms",
          "www.quay.example/forms/tax",
          "a.b.quay.example",
          "*.b.quay.example",
          "pier.example",
          "*.pier.example");
  private static final List<String> SITES =
      List.of(
          "quay.example",
          "www.quay.example",
          "www.quay.example/forms",
          "www.quay.example/forms/tax/2026",
          "www.quay.example/formsofold",
          "b.quay.example",
          "a.b.quay.example",
          "c.b.quay.example",
          "pier.example",
          "x.y.pier.example",
          "elsewhere.test");
  private static final List<String> TIMES =
      List.of(
          "weekdays 06:00-22:00",
          "weekends",
          "mon,wed 22:00-04:00",
          "sun 22-06",
          "daily 11:30-13",
          "fri-mon 08:00-09:00",
          "2026-12-24",
          "2026-12-24 to 2027-01-02",
          "2026-12-31");

  private static final ZoneId GATEWAY = ZoneId.of("Europe/Lisbon");
  private static final List<String> ZONES =
      List.of("", " in Europe/Oslo", " in America/New_York", " in asia/kolkata", " in UTC");

  private static Rulebase rulebase(
      List<TermObject> objects, Coordinate of, List<Criterion<String>> asked) {
    List<Rule> rules = new ArrayList<>();
    for (Criterion<String> criterion : asked) {
      String id = "r" + rules.size();
      rules.add(Rule.matchingAll(id, id, Verdict.ALLOW).asking(Map.of(of, criterion)));
    }
    return new Rulebase(
        "b",
        List.of(),
        List.of(),
        List.of(),
        objects,
        List.of(),
        List.of(),
        GatewaySettings.NONE,
        List.of(new Section("s", "S", rules)));
  }

  private static <T> List<T> some(List<T> all, Random random, int most) {
    List<T> out = new ArrayList<>();
    for (int i = random.nextInt(most + 1); i >= 0; i--) {
      out.add(all.get(random.nextInt(all.size())));
    }
    return out;
  }

  private static Connection connection(Coordinate of, String value) {
    return new Connection(
        Connection.Endpoint.NOT_KNOWN,
        Connection.Endpoint.NOT_KNOWN,
        Connection.UNKNOWN,
        Connection.UNKNOWN,
        Connection.UNKNOWN,
        Map.of(of, value));
  }

  /** One pattern by the definition in docs/meaning.md, and nothing else. */
  private static boolean holds(String pattern, String site) {
    if (pattern.startsWith("*")) {
      String host = site.contains("/") ? site.substring(0, site.indexOf('/')) : site;
      return host.endsWith(pattern.substring(1));
    }
    return site.equals(pattern) || site.startsWith(pattern + "/");
  }

  private static boolean holds(String item, LocalDateTime time) {
    ScheduleItem said = ScheduleItem.parse(item);
    if (said.zone() != null) {
      LocalDateTime there = time.atZone(GATEWAY).withZoneSameInstant(said.zone()).toLocalDateTime();
      return holds(item.substring(0, item.indexOf(" in ")), there);
    }
    return switch (said) {
      case ScheduleItem.Days days ->
          !time.toLocalDate().isBefore(days.first()) && !time.toLocalDate().isAfter(days.last());
      case ScheduleItem.Weekly w -> {
        int minute = time.getHour() * 60 + time.getMinute();
        boolean today = w.days().contains(time.getDayOfWeek());
        boolean yesterday = w.days().contains(time.getDayOfWeek().minus(1));
        yield w.to() > w.from()
            ? today && minute >= w.from() && minute < w.to()
            : (today && minute >= w.from()) || (yesterday && minute < w.to());
      }
    };
  }

  @Test
  void hostsAreWhatEachPatternMeans() {
    for (int seed = 0; seed < Rounds.of(400); seed++) {
      Random random = new Random(seed);
      TermObject list = new TermObject(ObjectKind.HOST_LIST, "ours", some(PATTERNS, random, 3), "");
      List<String> items = some(PATTERNS, random, 2);
      List<String> except = random.nextBoolean() ? List.of() : some(PATTERNS, random, 1);
      boolean byName = random.nextBoolean();
      Criterion<String> asked = new Criterion<>(byName ? List.of("Ours") : items, except);
      Rulebase base = rulebase(List.of(list), Coordinate.SITE, List.of(asked));
      for (String site : SITES) {
        boolean expected =
            (byName ? list.members() : items).stream().anyMatch(p -> holds(p, site))
                && except.stream().noneMatch(p -> holds(p, site));
        assertThat(new Matcher(base).decide(connection(Coordinate.SITE, site)).isPresent())
            .as("seed %d: %s less %s, %s", seed, asked, list.members(), site)
            .isEqualTo(expected);
      }
    }
  }

  @Test
  void timesAreWhatEachItemMeans() {
    for (int seed = 0; seed < Rounds.of(300); seed++) {
      Random random = new Random(seed);
      List<String> members = some(TIMES, random, 3);
      TermObject schedule = new TermObject(ObjectKind.SCHEDULE, "ours", members, "");
      List<String> items = some(TIMES, random, 2);
      Rulebase base =
          rulebase(
              List.of(schedule),
              Coordinate.TIME,
              List.of(Criterion.of("ours"), new Criterion<>(items, List.of())));
      for (int i = 0; i < 40; i++) {
        LocalDateTime time =
            LocalDateTime.of(2026, 12, 20, 0, 0).plusMinutes(random.nextInt(20 * 24 * 60));
        boolean inSchedule = inSchedule(members, time);
        boolean inItems = items.stream().anyMatch(item -> holds(item, time));
        String expected = inSchedule ? "r0" : inItems ? "r1" : "none";
        assertThat(
                new Matcher(base)
                    .decide(connection(Coordinate.TIME, time.toString()))
                    .map(Rule::id)
                    .orElse("none"))
            .as("seed %d: %s, %s, %s", seed, members, items, time)
            .isEqualTo(expected);
      }
    }
  }

  /** Over whole years, so that clocks are changed here, there, and not at once. */
  @Test
  void timesInOtherZonesAreMeantByTheirClocks() {
    for (int seed = 0; seed < Rounds.of(80); seed++) {
      Random random = new Random(seed);
      List<String> members = new ArrayList<>();
      some(TIMES, random, 2)
          .forEach(time -> members.add(time + ZONES.get(random.nextInt(ZONES.size()))));
      String literal = some(TIMES, random, 0).getFirst() + " in America/New_York";
      Rulebase base =
          rulebase(
              List.of(new TermObject(ObjectKind.SCHEDULE, "ours", members, "")),
              Coordinate.TIME,
              List.of(Criterion.of("ours"), Criterion.of(literal)));
      base = new Edit.SetTimeZone(GATEWAY).apply(base);
      Matcher matcher = new Matcher(base);
      for (int i = 0; i < 150; i++) {
        LocalDateTime time =
            i % 2 == 0
                ? LocalDateTime.of(2026, 12, 20, 0, 0).plusMinutes(random.nextInt(20 * 24 * 60))
                : LocalDateTime.of(2026, 3, 1, 0, 0).plusMinutes(random.nextInt(365 * 24 * 60));
        if (GATEWAY.getRules().getValidOffsets(time).size() != 1) {
          continue; // an hour that comes twice or not at all
        }
        String expected = inSchedule(members, time) ? "r0" : holds(literal, time) ? "r1" : "none";
        assertThat(
                matcher
                    .decide(connection(Coordinate.TIME, time.toString()))
                    .map(Rule::id)
                    .orElse("none"))
            .as("seed %d: %s, %s, %s", seed, members, literal, time)
            .isEqualTo(expected);
      }
    }
  }

  @Test
  void aLineMaySayAnInstant() {
    Rulebase base =
        rulebase(List.of(), Coordinate.TIME, List.of(Criterion.of("daily 10:00-11:00")));
    Rulebase here = new Edit.SetTimeZone(ZoneId.of("Europe/Oslo")).apply(base);
    Connection at = ConnectionLine.parse("time 2026-07-01T08:30Z", here);
    assertThat(at.terms()).containsEntry(Coordinate.TIME, "2026-07-01T10:30");
    assertThat(new Matcher(here).decide(at)).isPresent();
    assertThat(new Matcher(base).decide(ConnectionLine.parse("time 2026-07-01T08:30Z", base)))
        .isEmpty();
    assertThat(new Edit.SetTimeZone(GATEWAY).inverse(here))
        .contains(new Edit.SetTimeZone(ZoneId.of("Europe/Oslo")));
    assertThatThrownBy(() -> Differences.between(base, here, Aspect.VERDICT))
        .isInstanceOf(IllegalArgumentException.class)
        .hasMessageContaining("time zone");
  }

  @Test
  void rulebasesWithTimesInOtherZonesAreCompared() {
    Rulebase none = rulebase(List.of(), Coordinate.TIME, List.of(Criterion.of("mon 06:00-08:00")));
    Rulebase there =
        rulebase(
            List.of(
                new TermObject(
                    ObjectKind.SCHEDULE, "ours", List.of("mon 06:00-08:00 in Europe/Oslo"), "")),
            Coordinate.TIME,
            List.of(Criterion.of("ours")));
    Difference difference = Differences.between(none, there, Aspect.VERDICT);
    assertThat(difference.complete()).isTrue();
    for (var part : difference.parts()) {
      assertThat(new Matcher(none.tellingApart(there)).decide(part.witness()).isPresent())
          .isNotEqualTo(new Matcher(there.tellingApart(none)).decide(part.witness()).isPresent());
    }
    assertThat(difference.parts()).isNotEmpty();
    LiveAnalysis live = new LiveAnalysis(none);
    assertThat(live.update(there, Set.of("r0")).answers()).isNotEmpty();
  }

  private static boolean inSchedule(List<String> members, LocalDateTime time) {
    List<String> days = members.stream().filter(m -> m.startsWith("2026")).toList();
    List<String> weekly = members.stream().filter(m -> !m.startsWith("2026")).toList();
    return (days.isEmpty() || days.stream().anyMatch(m -> holds(m, time)))
        && (weekly.isEmpty() || weekly.stream().anyMatch(m -> holds(m, time)));
  }

  @Test
  void aRuleForAHostIsShadowedByOneForAllBelow() {
    Rulebase base =
        rulebase(
            List.of(),
            Coordinate.SITE,
            List.of(Criterion.of("*.quay.example"), Criterion.of("www.quay.example/forms")));
    assertThat(new LiveAnalysis(base).findings("r1"))
        .extracting(Finding::kind)
        .contains(Finding.Kind.REDUNDANT_ABOVE);
  }

  @Test
  void aConnectionLineSaysHostsAndTimes() {
    Rulebase base = rulebase(List.of(), Coordinate.SITE, List.of(Criterion.of("*.quay.example")));
    Connection connection = ConnectionLine.parse("tcp/443 site www.quay.example", base);
    assertThat(new Matcher(base).decide(connection)).map(Rule::id).contains("r0");
    assertThat(ConnectionLine.format(connection)).isEqualTo("tcp/443 site www.quay.example");
    Rulebase timed =
        rulebase(List.of(), Coordinate.TIME, List.of(Criterion.of("weekdays 06:00-22:00")));
    Connection at = ConnectionLine.parse("time mon 10:15 tcp/443", timed);
    assertThat(at.protocol()).isEqualTo(6);
    assertThat(new Matcher(timed).decide(at)).map(Rule::id).contains("r0");
    assertThat(new Matcher(timed).decide(ConnectionLine.parse("time sat 10:15", timed))).isEmpty();
    assertThatThrownBy(() -> ConnectionLine.parse("time soon", timed)).hasMessageContaining("time");
  }

  @Test
  void aTimeWithoutADateSaysNothingWhereRulesSpeakOfDates() {
    Rulebase base =
        rulebase(
            List.of(), Coordinate.TIME, List.of(Criterion.of("2026-12-24"), Criterion.of("daily")));
    ValueFinder finder = new ValueFinder(base.vocabulary(Coordinate.TIME).orElseThrow());
    assertThat(finder.value("thu 10:00")).isEqualTo(Optional.empty());
    assertThat(finder.value("2026-12-24T10:00")).contains("thu 00:00 from 2026-12-24");
  }

  @Test
  void renamingAndTakingBackKeepTheRules() {
    TermObject list = new TermObject(ObjectKind.HOST_LIST, "ours", List.of("*.quay.example"), "");
    Rulebase base = rulebase(List.of(list), Coordinate.SITE, List.of(Criterion.of("ours")));
    TermObject renamed = new TermObject(ObjectKind.HOST_LIST, "theirs", list.members(), "");
    Edit edit = new Edit.PutTerms(renamed, "ours");
    Rulebase after = edit.apply(base);
    assertThat(after.rules().getFirst().term(Coordinate.SITE).items()).containsExactly("theirs");
    assertThat(edit.inverse(base).orElseThrow().apply(after)).isEqualTo(base);
    assertThat(edit.touched(base)).hasSize(3);
    assertThatThrownBy(() -> new Edit.DeleteObject(ObjectKind.HOST_LIST, "ours").apply(base))
        .isInstanceOf(InvalidModel.class)
        .hasMessageContaining("1 rules that use it");
    Edit unused =
        new Edit.PutTerms(
            new TermObject(ObjectKind.SCHEDULE, "late", List.of("daily 22-06"), ""), null);
    Rulebase both = unused.apply(base);
    assertThat(unused.inverse(base).orElseThrow().apply(both)).isEqualTo(base);
  }

  @Test
  void anEditThatSaysSomethingNewIsFollowed() {
    Rulebase base =
        rulebase(
            List.of(),
            Coordinate.SITE,
            List.of(Criterion.of("*.quay.example"), Criterion.of("www.pier.example")));
    LiveAnalysis live = new LiveAnalysis(base);
    Rule moved =
        base.rules().get(1).asking(Map.of(Coordinate.SITE, Criterion.of("www.quay.example")));
    Rulebase after = new Edit.ReplaceRules(List.of(moved)).apply(base);
    live.update(after, Set.of("r1"));
    assertThat(live.findings("r1"))
        .extracting(Finding::kind)
        .contains(Finding.Kind.REDUNDANT_ABOVE);
  }

  @Test
  void rulebasesThatSayOtherHostsAndTimesAreCompared() {
    Rulebase before =
        rulebase(List.of(), Coordinate.SITE, List.of(Criterion.of("www.quay.example")));
    TermObject list =
        new TermObject(
            ObjectKind.HOST_LIST, "ours", List.of("www.quay.example", "pier.example"), "");
    Rulebase after = rulebase(List.of(list), Coordinate.SITE, List.of(Criterion.of("ours")));
    Difference difference = Differences.between(before, after, Aspect.VERDICT);
    assertThat(difference.parts())
        .hasSize(2) // one for each address family
        .allSatisfy(
            part ->
                assertThat(part.witness().terms()).containsEntry(Coordinate.SITE, "pier.example"));
    Rulebase none = rulebase(List.of(), Coordinate.SITE, List.of());
    assertThat(Differences.between(before, none, Aspect.VERDICT).parts()).hasSize(2);
    assertThat(Differences.between(none, before, Aspect.VERDICT).complete()).isTrue();
    assertThat(Differences.between(before, before, Aspect.VERDICT).parts()).isEmpty();
  }

  @Test
  void theCaseOfLettersTellsNothingApart() {
    Rulebase base =
        rulebase(
            List.of(),
            Coordinate.SITE,
            List.of(
                Criterion.of("WWW.quay.example/Forms"), Criterion.of("www.quay.example/forms")));
    assertThat(new Matcher(base).decide(connection(Coordinate.SITE, "www.quay.example/FORMS/tax")))
        .map(Rule::id)
        .contains("r0");
    assertThat(new LiveAnalysis(base).findings("r1"))
        .extracting(Finding::kind)
        .contains(Finding.Kind.REDUNDANT_ABOVE);
    Rulebase small =
        rulebase(List.of(), Coordinate.TIME, List.of(Criterion.of("weekdays 06:00-22:00")));
    Rulebase large =
        rulebase(
            List.of(new TermObject(ObjectKind.SCHEDULE, "late", List.of("Sat-sun"), "")),
            Coordinate.TIME,
            List.of(new Criterion<>(List.of("Weekdays 06:00-22:00", "sat-sun"), List.of())));
    assertThat(Differences.between(small, large, Aspect.VERDICT).parts()).isNotEmpty();
    assertThat(Differences.between(large, large, Aspect.VERDICT).parts()).isEmpty();
  }

  @Test
  void aHostMayBeAsLongAsDnsHasThem() {
    String label = "a".repeat(60) + ".";
    String host = label.repeat(4) + "quay.test"; // 253 characters, RFC 1035, section 2.3.4
    assertThat(host).hasSize(253);
    Rulebase base =
        rulebase(List.of(), Coordinate.SITE, List.of(Criterion.of("*." + host.substring(61))));
    assertThat(new Matcher(base).decide(ConnectionLine.parse("site " + host, base))).isPresent();
    assertThat(SitePattern.isOne("a" + host)).isFalse();
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "quay", "-.example", "*.quay.example/forms", "www.quay.example//a", "http://quay.example",
        "www quay.example", "", "*", "*.*.example", "www.quay.example/a,b"
      })
  void whatIsNoHostIsRefused(String text) {
    assertThat(SitePattern.isOne(text)).isFalse();
    Criterion<String> asked = Criterion.of(text);
    assertThatThrownBy(() -> rulebase(List.of(), Coordinate.SITE, List.of(asked)))
        .isInstanceOf(InvalidModel.class)
        .hasMessageContaining("host list or category, or a host such as");
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "weekdays 6-22",
        "weekdays 06:00",
        "someday 06-22",
        "mon 25:00-26:00",
        "mon 10:60-11:00",
        "mon 10:00-10:00",
        "mon in Nowhere",
        "mon in",
        "2026-02-30",
        "2026-12-26 to 2026-12-24",
        "mon-",
        "10:00-11:00",
      })
  void whatIsNoTimeIsRefused(String text) {
    assertThat(ScheduleItem.isOne(text)).isFalse();
    assertThatThrownBy(() -> new TermObject(ObjectKind.SCHEDULE, "late", List.of(text), ""))
        .isInstanceOf(InvalidModel.class)
        .hasMessageContaining("time");
  }

  @Test
  void namesThatReadLikeMembersAreRefused() {
    assertThatThrownBy(
            () -> new TermObject(ObjectKind.HOST_LIST, "quay.example", List.of("a.example"), ""))
        .isInstanceOf(InvalidModel.class);
    assertThatThrownBy(() -> new TermObject(ObjectKind.SCHEDULE, "weekends", List.of("daily"), ""))
        .isInstanceOf(InvalidModel.class);
  }
}
