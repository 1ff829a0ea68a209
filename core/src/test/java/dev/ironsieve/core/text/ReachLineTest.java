package dev.ironsieve.core.text;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.sets.InvalidText;
import dev.ironsieve.core.twin.SmallWorld;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class ReachLineTest {
  private static final Rulebase BASE = new SmallWorld(1).rulebase(3);

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "who can reach south from north | from in north to in south",
        "Who Can Reach 192.0.2.1 | to 192.0.2.1",
        "what can north reach service tcp/1 | from in north service tcp/1",
        "who but north, 10.0.0.9 can reach south | from not 10.0.0.9 in not north to in south",
        "what decides between north and south | from in north to in south",
        "from 10.0.0.0/8, not 10.1.0.0/16 in north to in south |"
            + " from 10.0.0.0/8, not 10.1.0.0/16 in north to in south",
        "from north , south | from in north, south",
        "'' | ''",
      })
  void readsQuestions(String line, String clauses) {
    Rule question = ReachLine.parse(line, BASE);
    assertThat(ReachLine.format(question)).isEqualTo(clauses == null ? "" : clauses);
    assertThat(ReachLine.parse(ReachLine.format(question), BASE)).isEqualTo(question);
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "who can reach nowhere | 14 | a zone, an address, an address object, an application or a"
            + " site",
        "what can north open south | 15 | \"reach\"",
        "from north tcp/443 | 11 | \"from\", \"to\", \"service\", \"person\", \"application\" or"
            + " another clause",
        "service 443 | 8 | a service such as tcp/443, or a service object",
        "from in nowhere | 8 | the name of a zone",
      })
  void saysWhereAQuestionIsWrong(String line, int offset, String expected) {
    assertThatThrownBy(() -> ReachLine.parse(line, BASE))
        .isInstanceOfSatisfying(
            InvalidText.class,
            e -> {
              assertThat(e.offset()).isEqualTo(offset);
              assertThat(e.expected()).isEqualTo(expected);
            });
  }

  @Test
  void everyMatchIsAQuestion() {
    for (int seed = 0; seed < 100; seed++) {
      SmallWorld world = new SmallWorld(seed);
      Rulebase base = world.rulebase(3);
      for (Rule rule : base.rules()) {
        Rule question = ReachLine.parse(ReachLine.format(rule), base);
        assertThat(question.terms()).isEqualTo(rule.terms());
        assertThat(question.fromAddresses()).isEqualTo(rule.fromAddresses());
        assertThat(question.toZones()).isEqualTo(rule.toZones());
        assertThat(question.services()).isEqualTo(rule.services());
      }
    }
  }
}
