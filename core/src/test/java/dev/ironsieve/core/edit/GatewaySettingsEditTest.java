package dev.ironsieve.core.edit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.ironsieve.core.bandwidth.GuaranteedBandwidth;
import dev.ironsieve.core.difference.Aspect;
import dev.ironsieve.core.difference.Differences;
import dev.ironsieve.core.model.AddressItem;
import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.GatewaySettings;
import dev.ironsieve.core.model.InvalidModel;
import dev.ironsieve.core.model.Notice;
import dev.ironsieve.core.model.ObjectKind;
import dev.ironsieve.core.model.Rate;
import dev.ironsieve.core.model.RatePlan;
import dev.ironsieve.core.model.RatePlan.Counted;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Section;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.model.Zone;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.sets.AddressRange;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Rate plans, notices, and what floors add up to. */
class GatewaySettingsEditTest {
  private static final Notice NOTICE = new Notice("mind", "Mind the gap", "Ask the bridge first.");

  private static RatePlan plan(String name, String floor, Counted counted, Integer most) {
    return new RatePlan(name, null, Rate.parse(floor), counted, most, "");
  }

  private static Rule rule(String id, Verdict verdict, String from, String plan) {
    Rule any = Rule.matchingAll(id, "rule " + id, verdict).handled(plan, null);
    return any.matching(
        Criterion.of("inside"),
        from == null ? Criterion.any() : Criterion.of(AddressItem.parse(from)),
        any.toZones(),
        any.toAddresses(),
        any.services());
  }

  private static Rulebase base(List<RatePlan> plans, Rule... rules) {
    return new Rulebase(
        "b",
        List.of(
            new Zone("inside", List.of(AddressRange.parse("10.0.0.0/24")), ""),
            new Zone("outside", List.of(), "")),
        List.of(),
        List.of(),
        List.of(),
        List.of(),
        List.of(),
        new GatewaySettings(plans, List.of(NOTICE), null),
        List.of(new Section("s", "S", List.of(rules))));
  }

  @ParameterizedTest
  @CsvSource({
    "800 bit/s, 800",
    "20 Mbit/s, 20000000",
    "2.5 Gbit/s, 2500000000",
    "1.000001 Mbit/s, 1000001",
    "20kbit/s, 20000",
    "1000 Tbit/s, 1000000000000000",
  })
  void ratesAreReadInAnyUnitAndWrittenBack(String text, long bits) {
    assertThat(Rate.parse(text).bits()).isEqualTo(bits);
    assertThat(Rate.parse(Rate.parse(text).toString()).bits()).isEqualTo(bits);
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "",
        "20",
        "20 MB/s",
        "0 bit/s",
        "1.5 bit/s",
        "1001 Tbit/s",
        "-1 Mbit/s",
        "2 mbit/s"
      })
  void whatIsNoRateIsRefused(String text) {
    assertThatThrownBy(() -> Rate.parse(text)).isInstanceOf(InvalidModel.class);
  }

  @Test
  void aPlanThatContradictsItselfIsRefusedWithWhatWasExpected() {
    Rate one = Rate.parse("1 Mbit/s");
    Rate two = Rate.parse("2 Mbit/s");
    assertThatThrownBy(() -> new RatePlan("p", null, null, Counted.EACH_RULE, null, ""))
        .hasMessageContaining("a ceiling, a floor, or both");
    assertThatThrownBy(() -> new RatePlan("p", one, two, Counted.EACH_RULE, null, ""))
        .hasMessageContaining("at most the ceiling, 1 Mbit/s")
        .hasMessageContaining("2 Mbit/s");
    assertThatThrownBy(() -> new RatePlan("p", one, null, Counted.EACH_SOURCE, null, ""))
        .hasMessageContaining("how many source addresses");
    assertThatThrownBy(() -> new RatePlan("p", one, null, Counted.ALL_RULES, 3, ""))
        .hasMessageContaining("only where each counts");
    assertThatThrownBy(() -> new Notice("n", "h", " ")).hasMessageContaining("a text");
    assertThatThrownBy(() -> base(List.of(), rule("a", Verdict.ALLOW, null, "gone")))
        .hasMessageContaining("a known rate plan");
  }

  @Test
  void floorsAddUpOverTheRulesThatLetThrough() {
    List<RatePlan> plans =
        List.of(
            plan("shared", "10 Mbit/s", Counted.ALL_RULES, null),
            plan("each", "2 Mbit/s", Counted.EACH_RULE, null),
            plan("few", "1 Mbit/s", Counted.EACH_SOURCE, 100),
            plan("many", "1 Mbit/s", Counted.EACH_SOURCE, 300),
            plan("idle", "1 Gbit/s", Counted.ALL_RULES, null),
            new RatePlan("cap", Rate.parse("1 Gbit/s"), null, Counted.ALL_RULES, null, ""));
    Rulebase base =
        base(
            plans,
            rule("a", Verdict.ALLOW, null, "shared"),
            rule("b", Verdict.CAUTION, null, "SHARED"),
            rule("c", Verdict.ALLOW, null, "each"),
            rule("d", Verdict.ALLOW, "10.0.0.1", "each"),
            rule("e", Verdict.DROP, null, "each"),
            rule("f", Verdict.ALLOW, null, "each").enabled(false),
            rule("g", Verdict.ALLOW, "10.0.0.0/25", "few"),
            rule("h", Verdict.ALLOW, "10.0.0.0/26", "many"),
            rule("i", Verdict.ALLOW, "10.0.0.64/26", "many"),
            rule("j", Verdict.ALLOW, "10.0.0.0-10.0.1.9", "many"),
            rule("k", Verdict.ALLOW, null, "cap"));
    GuaranteedBandwidth floors = GuaranteedBandwidth.of(base);
    assertThat(floors.plans())
        .extracting(kept -> kept.plan().name() + " " + kept.times() + " " + Rate.text(kept.total()))
        .containsExactly(
            "shared 1 10 Mbit/s",
            "each 2 4 Mbit/s",
            "few 100 100 Mbit/s",
            "many 256 256 Mbit/s", // the zone holds no more
            "idle 0 0 bit/s");
    assertThat(floors.plans().getFirst().rules()).containsExactly("rule a", "rule b");
    assertThat(Rate.text(floors.total())).isEqualTo("370 Mbit/s");
  }

  @Test
  void aSumThatIsTooLargeIsTheLargest() {
    Rule open = Rule.matchingAll("a", "a", Verdict.ALLOW).handled("p", null);
    RatePlan plan = plan("p", "1000 Tbit/s", Counted.EACH_SOURCE, RatePlan.MOST_SOURCES);
    assertThat(GuaranteedBandwidth.of(base(List.of(plan), open)).total()).isEqualTo(Long.MAX_VALUE);
  }

  @Test
  void plansAndNoticesAreMadeRenamedTakenAwayAndTakenBack() {
    RatePlan plan = plan("p", "1 Mbit/s", Counted.EACH_RULE, null);
    Rulebase base = base(List.of(plan), rule("a", Verdict.CAUTION, null, "P").handled("P", "Mind"));
    for (Edit edit :
        List.of(
            new Edit.PutRatePlan(plan("q", "2 Mbit/s", Counted.EACH_RULE, null), "p"),
            new Edit.PutNotice(new Notice("stop", "Stop", "No."), "MIND"),
            new Edit.PutRatePlan(plan("r", "2 Mbit/s", Counted.EACH_RULE, null), null),
            new Edit.SetLineCapacity(Rate.parse("1 Gbit/s")))) {
      Rulebase after = edit.apply(base);
      Rulebase back = edit.inverse(base).orElseThrow().apply(after);
      assertThat(back.gatewaySettings()).isEqualTo(base.gatewaySettings());
      assertThat(edit.touched(base)).isNotEmpty();
    }
    Rule renamed =
        new Edit.PutRatePlan(plan("q", "2 Mbit/s", Counted.EACH_RULE, null), "p")
            .apply(base)
            .rules()
            .getFirst();
    assertThat(renamed.ratePlan()).isEqualTo("q");
    assertThat(renamed.notice()).isEqualTo("Mind");
    assertThatThrownBy(() -> new Edit.DeleteObject(ObjectKind.RATE_PLAN, "p").apply(base))
        .hasMessageContaining("no rule that uses it");
    Removal removal = Removal.of(base, ObjectKind.NOTICE, "mind");
    Rule without = removal.edit().apply(base).rules().getFirst();
    assertThat(without.notice()).isNull();
    assertThat(without.ratePlan()).isEqualTo("P");
    assertThat(without.enabled()).isTrue();
    Edit edit = removal.edit();
    assertThat(edit.inverse(base).orElseThrow().apply(edit.apply(base))).isEqualTo(base);
    assertThatThrownBy(() -> new Edit.DeleteObject(ObjectKind.NOTICE, "gone").apply(base))
        .isInstanceOf(MissingTarget.class);
  }

  @Test
  void aDifferenceIsToldInRatePlans() {
    RatePlan plan = plan("p", "1 Mbit/s", Counted.EACH_RULE, null);
    Rule rule = rule("a", Verdict.ALLOW, null, null);
    Rulebase before = base(List.of(plan), rule);
    Rulebase after = base(List.of(plan), rule.handled("P", null));
    assertThat(Differences.between(before, after, Aspect.VERDICT).isEmpty()).isTrue();
    assertThat(Differences.between(before, after, Aspect.RATE_PLAN).parts()).hasSize(1);
    Rulebase same = base(List.of(plan), rule.handled("p", null));
    assertThat(Differences.between(same, after, Aspect.RATE_PLAN).isEmpty()).isTrue();
  }
}
