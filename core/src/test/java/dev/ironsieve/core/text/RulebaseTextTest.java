package dev.ironsieve.core.text;

import static org.assertj.core.api.Assertions.assertThat;

import dev.ironsieve.core.model.AddressItem;
import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.Logging;
import dev.ironsieve.core.model.Opening;
import dev.ironsieve.core.model.Ownership;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.ServiceItem;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.twin.SmallWorld;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;

class RulebaseTextTest {
  @Test
  void aRuleIsOneLine() {
    Rule rule =
        Rule.matchingAll("k", "Kiosks \"sell\"", Verdict.CAUTION)
            .edit()
            .from(
                Criterion.of("terminals"),
                new Criterion<>(
                    List.of(AddressItem.parse("Ticket kiosks")),
                    List.of(AddressItem.parse("10.4.9.0/24"))))
            .to(Criterion.of("booking"), Criterion.any())
            .services(Criterion.of(ServiceItem.parse("tcp/443"), ServiceItem.parse("Kiosk API")))
            .opening(Opening.OPENED)
            .logging(Logging.END)
            .notice("Mind the gap")
            .hold(15)
            .note("two\nlines")
            .ownership(new Ownership("Ruth", "", List.of("kiosk")))
            .enabled(false)
            .build();
    assertThat(RulebaseText.rule(rule))
        .isEqualTo(
            "caution \"Kiosks \\\"sell\\\"\" from \"Ticket kiosks\", not 10.4.9.0/24 in terminals"
                + " to in booking service tcp/443, \"Kiosk API\" opened log end"
                + " notice \"Mind the gap\" hold 15 min disabled owner \"Ruth\" tag kiosk"
                + " note \"two\\nlines\"");
  }

  /** Rules that differ in anything but their id differ in their lines. */
  @Test
  void differentRulesHaveDifferentLines() {
    Map<String, Rule> byLine = new HashMap<>();
    for (int seed = 0; seed < 60; seed++) {
      for (Rule rule : new SmallWorld(seed, true).rulebase(9).rules()) {
        Rule same = rule.edit().id("same").build();
        Rule other = byLine.putIfAbsent(RulebaseText.rule(rule), same);
        assertThat(other == null || other.equals(same)).as(RulebaseText.rule(rule)).isTrue();
      }
    }
    assertThat(byLine).hasSizeGreaterThan(100);
  }
}
