package dev.ironsieve.formats.ruletext;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.ironsieve.core.model.AddressItem;
import dev.ironsieve.core.model.AddressObject;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Section;
import dev.ironsieve.core.model.Zone;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.formats.InvalidDocument;
import java.nio.charset.StandardCharsets;
import java.util.List;
import org.junit.jupiter.api.Test;

class RuleTextFileTest {
  private static final Rulebase NOTHING = Rulebase.empty("nothing");

  private static Rulebase read(String text, Rulebase objects) {
    return RuleTextFile.read(text.getBytes(StandardCharsets.UTF_8), "read", objects);
  }

  @Test
  void rulesSectionsAndRemarksAreRead() {
    Rulebase read =
        read(
            """
            # asked for by the harbour master
            section "Ticket \\"sales\\""
            allow "Kiosks" from 10.4.0.0/16 in terminals to in booking service tcp/443 log end

            drop "Rest" disabled
            section "Other"
            reject "All"
            """,
            NOTHING);
    assertThat(read.name()).isEqualTo("read");
    assertThat(read.sections())
        .extracting(Section::name)
        .containsExactly("Ticket \"sales\"", "Other");
    assertThat(read.rules()).extracting(Rule::name).containsExactly("Kiosks", "Rest", "All");
    assertThat(read.zones()).extracting(Zone::name).containsExactly("terminals", "booking");
    assertThat(read.rules().get(1).enabled()).isFalse();
    String again = String.join("\n", RuleTextFile.write(read));
    assertThat(read(again, NOTHING).sections()).isEqualTo(read.sections());
    assertThat(again).startsWith("section \"Ticket \\\"sales\\\"\"\nallow \"Kiosks\" from ");
  }

  @Test
  void objectsAreThoseOfAnotherRulebase() {
    AddressObject kiosks =
        new AddressObject("Kiosks", List.of(AddressItem.parse("10.4.0.0/16")), "");
    Rulebase objects = NOTHING.with(List.of(), List.of(kiosks), List.of(), NOTHING.sections());
    assertThat(read("allow \"a\" from Kiosks", objects).rules()).hasSize(1);
    assertThatThrownBy(() -> read("allow \"a\" from Kiosks", NOTHING))
        .isInstanceOf(InvalidDocument.class)
        .hasMessageContaining("a known address");
  }

  @Test
  void everyFaultHasItsLine() {
    assertThatThrownBy(() -> read("allow \"a\"\nsection Sales\n\nmaybe \"b\"\n", NOTHING))
        .isInstanceOfSatisfying(
            InvalidDocument.class,
            e ->
                assertThat(e.faults())
                    .extracting(fault -> fault.path())
                    .containsExactly("line 2, character 9", "line 4, character 1"));
  }

  @Test
  void textIsToldFromJson() {
    assertThat(RuleTextFile.looksLikeOne(" {\"a\": 1}".getBytes(StandardCharsets.UTF_8))).isFalse();
    assertThat(RuleTextFile.looksLikeOne(new byte[0])).isFalse();
    assertThat(RuleTextFile.looksLikeOne("\n# x".getBytes(StandardCharsets.UTF_8))).isTrue();
  }
}
