package dev.ironsieve.formats.document;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.formats.Fault;
import dev.ironsieve.formats.InvalidDocument;
import dev.ironsieve.formats.Json;
import java.nio.charset.StandardCharsets;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class DocumentTest {
  private static final String GOOD =
      """
      {"ironSieve": 1, "name": "Harbour",
       "zones": [{"name": "inside", "members": ["10.0.0.0/8"]}, {"name": "outside"}],
       "addresses": [{"name": "front", "members": ["192.0.2.10", "2001:db8::/64"]}],
       "services": [{"name": "web", "members": ["tcp/80", "tcp/443"]}],
       "sections": [{"name": "All", "rules": [
         {"name": "Web in", "fromZones": {"items": ["outside"]},
          "toAddresses": {"items": ["front"], "except": ["192.0.2.11"]},
          "services": {"items": ["web"]}, "verdict": "allow", "log": "end", "note": "why"},
         {"id": "last", "name": "Rest", "enabled": false, "verdict": "drop"}]}]}
      """;

  private static Rulebase read(String json) {
    return ToModel.rulebase(
        Json.read(json.getBytes(StandardCharsets.UTF_8), RulebaseDocument.class));
  }

  private static Fault fault(String json) {
    InvalidDocument error = catchThrowableOfType(InvalidDocument.class, () -> read(json));
    assertThat(error).as(json).isNotNull();
    return error.faults().getFirst();
  }

  @Test
  void whatIsWrittenReadsBackTheSame() {
    Rulebase base = read(GOOD);
    assertThat(base.rules()).extracting("id").containsExactly("s1r1", "last");
    assertThat(base.rules().getFirst().toAddresses().except()).hasSize(1);
    assertThat(read(Json.write(FromModel.rulebase(base)))).isEqualTo(base);
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      quoteCharacter = '`',
      value = {
        "\"ironSieve\": 1 | \"ironSieve\": 2 | $.ironSieve | 1",
        "10.0.0.0/8 | 10.0.0.0/40 | $.zones[0].members[0] | a prefix length from 0 to 32",
        "\"tcp/443\" | \"tcp/x\" | $.services[0].members[1] | a port from 0 to 65535",
        "\"tcp/443\" | 443 | $.services[0].members[1] | text",
        "\"drop\" | \"deny\" | $.sections[0].rules[1].verdict | one of allow, drop, reject, caution",
        "\"enabled\": false | \"enabled\": \"no\" | $.sections[0].rules[1].enabled | true or false",
        "\"note\" | \"nota\" | $.sections[0].rules[0].nota | one of",
        "\"items\": [\"front\"] | \"items\": [null] | $.sections[0].rules[0].toAddresses.items[0]"
            + " | a value",
        "\"items\": [\"front\"] | \"items\": [\"back\"] | $ | a known address",
        "\"Rest\" | \"\" | $.sections[0].rules[1] | 1 to 100 characters",
        "\"last\" | \"s1r1\" | $ | each id once",
        "[\"192.0.2.10\", \"2001:db8::/64\"] | {} | $.addresses[0].members | an array",
        "{\"name\": \"outside\"} | null | $.zones[1] | a value",
      })
  void aFaultIsNamedWithItsPath(String good, String bad, String path, String expected) {
    assertThat(GOOD).contains(good);
    Fault fault = fault(GOOD.replace(good, bad));
    assertThat(fault.path()).isEqualTo(path);
    assertThat(fault.expected()).startsWith(expected);
  }

  @Test
  void textThatIsNoJsonIsPlacedByLineAndColumn() {
    assertThat(fault("{\n  \"ironSieve\": }").path()).isEqualTo("line 2, column 16");
    assertThat(fault("").found()).isEqualTo("the end");
    assertThat(fault("{\"name\": \"a\", \"name\": \"b\"}").found()).isEqualTo("a member twice");
    assertThat(fault(GOOD + "{}").expected()).isNotEmpty();
    assertThat(fault("null").found()).isEqualTo("null");
    assertThat(fault("[]").expected()).isEqualTo("an object");
    assertThat(fault("[".repeat(5000)).expected()).isNotEmpty();
  }
}
