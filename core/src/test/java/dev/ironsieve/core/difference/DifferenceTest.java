package dev.ironsieve.core.difference;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import dev.ironsieve.core.difference.Difference.ChangedBox;
import dev.ironsieve.core.edit.Edit;
import dev.ironsieve.core.edit.Place;
import dev.ironsieve.core.model.AddressItem;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.Logging;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Section;
import dev.ironsieve.core.model.ServiceItem;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.model.Vocabulary;
import dev.ironsieve.core.model.Zone;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.ruleindex.RuleIndex;
import dev.ironsieve.core.sets.AddressRange;
import dev.ironsieve.core.text.ConnectionLine;
import java.time.ZoneId;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;

/** Differences by example: which parts there are, how large, and in which order. */
class DifferenceTest {
  private static final Zone INSIDE =
      new Zone("inside", List.of(AddressRange.parse("10.0.0.0/24")), "");
  private static final Zone OUTSIDE =
      new Zone("outside", List.of(AddressRange.parse("192.0.2.0/24")), "");

  private static Rule rule(String id, Verdict verdict, String to, String... services) {
    Rule any = Rule.matchingAll(id, "rule " + id, verdict);
    ServiceItem[] asked = new ServiceItem[services.length];
    for (int i = 0; i < services.length; i++) {
      asked[i] = ServiceItem.parse(services[i]);
    }
    return any.matching(
        Criterion.of("inside"),
        any.fromAddresses(),
        Criterion.of("outside"),
        to == null ? Criterion.any() : Criterion.of(AddressItem.parse(to)),
        Criterion.of(asked));
  }

  private static Rulebase base(Rule... rules) {
    return new Rulebase(
        "b",
        List.of(INSIDE, OUTSIDE),
        List.of(),
        List.of(),
        List.of(new Section("s", "S", List.of(rules))));
  }

  private static Difference of(Rulebase before, Rulebase after) {
    return Differences.between(before, after, Aspect.VERDICT);
  }

  @Test
  void aDisabledRuleIsOnePartWithItsWitness() {
    Rulebase before = base(rule("web", Verdict.ALLOW, "192.0.2.10", "tcp/443"));
    Rulebase after =
        new Edit.ReplaceRules(List.of(before.rules().getFirst().enabled(false))).apply(before);
    Difference difference = of(before, after);
    assertThat(difference.isEmpty()).isFalse();
    assertThat(difference.complete()).isTrue();
    assertThat(difference.changed()).containsExactly(before.rules().getFirst());
    ChangedBox part = difference.parts().getFirst();
    assertThat(difference.parts()).hasSize(1);
    assertThat(part.extent()).isEqualTo(Difference.Extent.WHOLE);
    assertThat(part.before()).isEqualTo(before.rules().getFirst());
    assertThat(part.after()).isNull();
    assertThat(difference.words(part))
        .containsExactly("from inside", "to 192.0.2.10 in outside", "service tcp/443");
    assertThat(part.witness().to().address()).hasToString("192.0.2.10");
    assertThat(difference.part(part.witness())).contains(part);
    assertThat(
            difference.part(
                ConnectionLine.parse(
                    "from 10.0.0.1 in inside to 192.0.2.11 in outside tcp/443 from port 1", after)))
        .isEmpty();
    assertThat(difference.part(ConnectionLine.parse("tcp/443", after))).isEmpty();
  }

  @Test
  void aRulebaseDoesNotDifferFromItself() {
    Rulebase base = base(rule("web", Verdict.ALLOW, null, "tcp/443"));
    assertThat(of(base, base).isEmpty()).isTrue();
    assertThat(of(base, base).changed()).isEmpty();
    Difference same = of(base, base);
    Difference cut =
        new Difference(
            same.before(), same.after(), same.aspect(), same.changed(), same.parts(), false);
    assertThat(cut.isEmpty()).isFalse(); // not for certain
  }

  /** Neighbours with the same answer become one part, whichever axis they differ on. */
  @Test
  void partsAreFewAndLarge() {
    Rulebase before =
        base(
            rule("a", Verdict.ALLOW, "192.0.2.0/28", "tcp/80"),
            rule("b", Verdict.ALLOW, "192.0.2.16/28", "tcp/80"),
            rule("c", Verdict.ALLOW, "192.0.2.0/27", "tcp/443"));
    Difference difference = of(before, base());
    assertThat(difference.parts()).hasSize(1);
    assertThat(difference.words(difference.parts().getFirst()))
        .containsExactly("from inside", "to 192.0.2.0/27 in outside", "service tcp/80, tcp/443");
    Difference back = of(base(), before);
    assertThat(back.parts()).hasSize(1);
    assertThat(back.parts().getFirst().before()).isNull();
    assertThat(back.parts().getFirst().after().verdict()).isEqualTo(Verdict.ALLOW);
    Rulebase unlike =
        base(
            rule("a", Verdict.ALLOW, "192.0.2.0/28", "tcp/80"),
            rule("b", Verdict.REJECT, "192.0.2.16/28", "tcp/80"));
    assertThat(of(unlike, base()).parts()).hasSize(2);
  }

  /** There are three classes of addresses, and three of services: 80, 443, others. */
  @Test
  void theLargestComesFirstAndAShareSaysHowLarge() {
    Rulebase before =
        base(
            rule("small", Verdict.ALLOW, "192.0.2.10", "tcp/80"),
            rule("large", Verdict.REJECT, "192.0.2.11", "tcp/80", "tcp/443"));
    Difference difference = of(before, base());
    assertThat(difference.parts())
        .extracting(p -> p.before().id())
        .containsExactly("large", "small");
    double large = difference.parts().getFirst().share();
    double small = difference.parts().getLast().share();
    assertThat(large / small).isCloseTo(2, within(1e-9));
    assertThat(large).isBetween(0.01, 0.2);
    Difference half = of(base(rule("all", Verdict.ALLOW, null, "tcp", "udp")), base());
    double whole = half.parts().stream().mapToDouble(ChangedBox::share).sum();
    assertThat(whole).isBetween(0.05, 0.9);
  }

  @Test
  void aRuleThatMovedIsTheOnlyOneThatChanged() {
    Rulebase before =
        base(
            rule("a", Verdict.ALLOW, "192.0.2.1", "tcp"),
            rule("b", Verdict.DROP, "192.0.2.2", "tcp"),
            rule("c", Verdict.REJECT, "192.0.2.3", "tcp"),
            rule("d", Verdict.ALLOW, "192.0.2.0/30", "tcp/80"));
    Rulebase up = new Edit.MoveRules(List.of("d"), new Place.Above("a")).apply(before);
    assertThat(of(before, up).changed()).extracting(Rule::id).containsExactly("d");
    assertThat(of(before, up).parts())
        .extracting(part -> part.before().id() + " > " + part.after().id())
        .containsExactlyInAnyOrder("b > d", "c > d");
    Rulebase down = new Edit.MoveRules(List.of("a"), new Place.Below("d")).apply(before);
    assertThat(of(before, down).changed()).extracting(Rule::id).containsExactly("a");
    assertThat(of(before, down).isEmpty()).isTrue();
  }

  @Test
  void whatIsComparedIsWhatWasAsked() {
    Rule web = rule("web", Verdict.ALLOW, null, "tcp/443");
    Rule logged =
        new Rule(
            web.id(),
            web.name(),
            true,
            web.fromZones(),
            web.fromAddresses(),
            web.toZones(),
            web.toAddresses(),
            web.services(),
            web.verdict(),
            Logging.BOTH,
            "");
    assertThat(of(base(web), base(logged)).isEmpty()).isTrue();
    Difference logs = Differences.between(base(web), base(logged), Aspect.LOGGING);
    assertThat(logs.parts()).hasSize(1);
    assertThat(logs.aspect()).isEqualTo(Aspect.LOGGING);
    Rule twin = rule("twin", Verdict.ALLOW, null, "tcp/443");
    assertThat(of(base(web), base(twin)).isEmpty()).isTrue();
    assertThat(Differences.between(base(web), base(twin), Aspect.RULE).parts()).hasSize(1);
  }

  @Test
  void onlyTheSameConnectionsAreCompared() {
    Rulebase base = base(rule("web", Verdict.ALLOW, null, "tcp/443"));
    Rulebase elsewhere =
        new Rulebase(
            "b",
            List.of(INSIDE, OUTSIDE, new Zone("between", List.of(), "")),
            List.of(),
            List.of(),
            base.sections());
    assertThatThrownBy(() -> of(base, elsewhere))
        .isInstanceOf(IllegalArgumentException.class)
        .hasMessageContaining("not the same zones");
    Vocabulary ann = new Vocabulary(Coordinate.PERSON, "1", List.of("ann"), List.of());
    Vocabulary ben = new Vocabulary(Coordinate.PERSON, "2", List.of("ann", "ben"), List.of());
    Rulebase one = base.withPinned(List.of(ann));
    Rulebase two = base.withPinned(List.of(ben));
    assertThatThrownBy(() -> of(one, two)).isInstanceOf(IllegalArgumentException.class);
    assertThat(of(one, one).isEmpty()).isTrue();
    assertThatThrownBy(
            () ->
                Differences.between(new RuleIndex(base), new RuleIndex(base), Aspect.VERDICT, 1000))
        .isInstanceOf(IllegalArgumentException.class)
        .hasMessage("not in one space");
  }

  @Test
  void hostsThatOnlyOneSideSaysAreToldApartOnBoth() {
    Rule web = rule("web", Verdict.ALLOW, null, "tcp/443");
    Rulebase before = base(web);
    Rulebase after = base(web.asking(Map.of(Coordinate.SITE, Criterion.of("www.quay.example"))));
    Difference less = of(before, after);
    assertThat(less.isEmpty()).isFalse();
    for (ChangedBox part : less.parts()) {
      assertThat(part.before().id()).isEqualTo("web");
      assertThat(part.after()).isNull();
      assertThat(ConnectionLine.format(part.witness())).doesNotContain("www.quay.example");
    }
    Difference more = of(after, before);
    assertThat(more.parts()).hasSameSizeAs(less.parts());
    assertThat(more.parts().getFirst().after().id()).isEqualTo("web");
    assertThat(more.parts().getFirst().before()).isNull();
  }

  @Test
  void timesAreComparedByOneClockOnly() {
    Rule web = rule("web", Verdict.ALLOW, null, "tcp/443");
    Rulebase timed =
        base(web.asking(Map.of(Coordinate.TIME, Criterion.of("weekdays 06:00-22:00"))));
    assertThatThrownBy(() -> of(timed, in(timed, "Europe/Oslo")))
        .isInstanceOf(IllegalArgumentException.class)
        .hasMessageContaining("time zone");
    assertThat(of(in(timed, "Europe/Oslo"), in(timed, "Europe/Oslo")).isEmpty()).isTrue();
    // If no rule uses time, the time zone does not matter.
    assertThat(of(base(web), in(base(web), "Europe/Oslo")).isEmpty()).isTrue();
  }

  private static Rulebase in(Rulebase base, String zone) {
    return new Edit.SetTimeZone(ZoneId.of(zone)).apply(base);
  }
}
