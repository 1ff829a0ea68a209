package dev.ironsieve.core.text;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.ironsieve.core.model.AddressItem;
import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.Logging;
import dev.ironsieve.core.model.Opening;
import dev.ironsieve.core.model.Ownership;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.ServiceItem;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.sets.InvalidText;
import dev.ironsieve.core.twin.SmallWorld;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class RuleTextTest {
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
    assertThat(RuleText.format(rule))
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
        Rule other = byLine.putIfAbsent(RuleText.format(rule), same);
        assertThat(other == null || other.equals(same)).as(RuleText.format(rule)).isTrue();
      }
    }
    assertThat(byLine).hasSizeGreaterThan(100);
  }

  @Test
  void everyRuleComesBackTheSame() {
    for (int seed = 0; seed < 200; seed++) {
      for (Rule rule : new SmallWorld(seed, seed % 2 == 0).rulebase(9).rules()) {
        String text = RuleText.format(rule);
        assertThat(RuleText.parse(text, rule.id())).as(text).isEqualTo(rule);
      }
    }
    Rule odd =
        Rule.matchingAll("x", "a \\ \"b\"", Verdict.DROP)
            .edit()
            .to(Criterion.of("in"), Criterion.of(AddressItem.parse("log")))
            .ownership(new Ownership("O\"", "T 1", List.of("not", "two words")))
            .note("tab\tand \\n")
            .unfinished(false)
            .observeOnly(true)
            .build();
    assertThat(RuleText.parse(RuleText.format(odd), "x")).isEqualTo(odd);
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      quoteCharacter = '`',
      value = {
        "permit \"a\"             |  0 | allow, drop, reject or caution",
        "allow a                  |  6 | the name of the rule in quotes",
        "allow \"a\" form x        | 10 | a clause, such as from, to, service or log",
        "allow \"a\" from          | 14 | an item",
        "allow \"a\" from x,       | 17 | an item",
        "allow \"a\" from in z in y| 20 | a clause, such as from, to, service or log",
        "allow \"a\" service tcp/99999 | 18 | ",
        "allow \"a\" log off       | 14 | start, end or both",
        "allow \"a\" hold 5        | 16 | \"min\"",
        "allow \"a\" ends tomorrow | 15 | a day such as 2026-12-24",
        "allow \"a\" opened opened | 17 | each clause once",
        "allow \"a\" note \"open    | 15 | a note in quotes",
        "allow \"a\" file x        | 15 | \"kind\""
      })
  void aFaultHasItsPlace(String text, int offset, String expected) {
    assertThatThrownBy(() -> RuleText.parse(text, "x"))
        .isInstanceOfSatisfying(
            InvalidText.class,
            fault -> {
              assertThat(fault.offset()).isEqualTo(offset);
              assertThat(fault.expected()).contains(expected == null ? "" : expected);
            });
  }
}
