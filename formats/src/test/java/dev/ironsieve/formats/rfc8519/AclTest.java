package dev.ironsieve.formats.rfc8519;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.catchThrowableOfType;
import static org.assertj.core.api.Assertions.tuple;

import dev.ironsieve.core.analysis.LiveAnalysis;
import dev.ironsieve.core.analysis.Standing;
import dev.ironsieve.core.matcher.Matcher;
import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Section;
import dev.ironsieve.core.model.Validity;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.model.Zone;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.text.ConnectionLine;
import dev.ironsieve.core.twin.SmallWorld;
import dev.ironsieve.formats.Fault;
import dev.ironsieve.formats.InvalidDocument;
import dev.ironsieve.formats.Json;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class AclTest {
  private static final String QUAY = resource("/quay-acls.json");

  private static String resource(String name) {
    try (var in = AclTest.class.getResourceAsStream(name)) {
      return new String(in.readAllBytes(), StandardCharsets.UTF_8);
    } catch (IOException e) {
      throw new UncheckedIOException(name, e);
    }
  }

  private static AclReader.Imported read(String json) {
    return AclReader.read(json.getBytes(StandardCharsets.UTF_8), "Quay");
  }

  private static Optional<String> decides(Rulebase base, String line) {
    return new Matcher(base).decide(ConnectionLine.parse(line, base)).map(Rule::name);
  }

  @Test
  void everyMatchOfTheStandardKeepsItsMeaning() {
    Rulebase base = read(QUAY).rulebase();
    assertThat(base.sections()).extracting("name").containsExactly("quay-edge", "quay-edge-v6");
    assertThat(decides(base, "from 198.51.100.7 to 192.0.2.10 tcp/443")).contains("booking web");
    assertThat(decides(base, "from 10.4.200.1 to 192.0.2.53 udp/53 from port 1024"))
        .contains("names");
    assertThat(decides(base, "from 10.4.200.1 to 192.0.2.53 udp/53 from port 1023"))
        .contains("rest");
    assertThat(decides(base, "from 10.4.200.1 to 192.0.2.53 tcp/24")).contains("all but mail");
    assertThat(decides(base, "from 10.4.200.1 to 192.0.2.53 tcp/25")).contains("rest");
    assertThat(base.rules().getFirst().logging().word()).isEqualTo("end");
    assertThat(base.zones()).extracting("name").containsExactly("uplink");
  }

  @Test
  void theAnalysisFindsWhatIsShadowedInARealDocument() {
    Rulebase base = read(QUAY).rulebase();
    Standing kiosks = new LiveAnalysis(base).standings().get("s1r4");
    assertThat(kiosks).isInstanceOf(Standing.Covered.class);
    Standing.Covered covered = (Standing.Covered) kiosks;
    assertThat(covered.causes()).containsExactly("s1r3");
    assertThat(covered.kind()).isEqualTo(Standing.Kind.SHADOWED);
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "\"port\": 443 | \"port\": 65536 | .acl[0].aces.ace[0].matches.tcp.destination-port.port"
            + " | a whole number from 0 to 65535",
        "\"port\": 443 | \"port\": \"443\""
            + " | .acl[0].aces.ace[0].matches.tcp.destination-port.port | a whole number",
        "\"neq\" | \"not\" | .acl[0].aces.ace[2].matches.tcp.destination-port.operator | eq, neq",
        "\"upper-port\": 65535 | \"upper-port\": 9"
            + " | .acl[0].aces.ace[1].matches.udp.source-port.upper-port | a port not below 1024",
        "\"protocol\": 6 | \"protocol\": 17 | .acl[0].aces.ace[0].matches.ipv4.protocol"
            + " | the protocol of the layer 4 match, 6",
        "\"protocol\": 6 | \"dscp\": 6 | .acl[0].aces.ace[0].matches.ipv4.dscp | one of",
        "10.4.2.9/16 | 10.4.2.9/33"
            + " | .acl[0].aces.ace[1].matches.ipv4.source-ipv4-network | an IPv4 prefix",
        "10.4.2.9/16 | 2001:db8::/32"
            + " | .acl[0].aces.ace[1].matches.ipv4.source-ipv4-network | an IPv4 prefix",
        "10.4.2.9/16 | 10.4.2/16"
            + " | .acl[0].aces.ace[1].matches.ipv4.source-ipv4-network | \".\"",
        "\"reject\" | \"deny\" | .acl[0].aces.ace[3].actions.forwarding | accept, drop or reject",
        "\"log-syslog\" | \"log-disk\" | .acl[0].aces.ace[0].actions.logging | log-syslog",
        "ipv6-acl-type | ipv5-acl-type | .acl[1].type | one of",
        "\"code\": 0 | \"code\": 256 | .acl[1].aces.ace[0].matches.icmp.code | a whole number",
        "\"names\" | \"booking web\" | .acl[0].aces.ace[1].name | each name once",
        "\"quay-edge-v6\" | \"quay-edge\" | .acl[1].name | each name once",
        "\"forwarding\": \"drop\" | \"logging\": \"log-none\" | .acl[0].aces.ace[4].actions"
            + " | a member \"forwarding\"",
      })
  void aFaultIsNamedWithItsPath(String good, String bad, String path, String expected) {
    assertThat(QUAY).contains(good);
    InvalidDocument error =
        catchThrowableOfType(InvalidDocument.class, () -> read(QUAY.replace(good, bad)));
    Fault fault = error.faults().getFirst();
    assertThat(fault.path()).isEqualTo("$.ietf-access-control-list:acls" + path);
    assertThat(fault.expected()).startsWith(expected);
  }

  @Test
  void severalFaultsAreToldAtOnce() {
    String bad = QUAY.replace("\"accept\"", "\"permit\"").replace("\"port\": 53", "\"port\": -1");
    InvalidDocument error = catchThrowableOfType(InvalidDocument.class, () -> read(bad));
    assertThat(error.faults()).hasSize(4);
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "{} | $",
        "[] | $",
        "{\"acls\": []} | $.acls",
        "{\"acls\": {\"acl\": {}}} | $.acls.acl"
      })
  void whatIsNoSuchDocumentIsRefused(String json, String path) {
    InvalidDocument error = catchThrowableOfType(InvalidDocument.class, () -> read(json));
    assertThat(error.faults().getFirst().path()).isEqualTo(path);
  }

  /**
   * Random rulebases, written, read back, and compared on every point of their small worlds. The
   * standard has no verdict "caution": the writer leaves out every rule with it.
   */
  @Test
  void whatIsWrittenDecidesEveryConnectionAlikeUnlessItIsReported() {
    List<Connection> all = SmallWorld.connections();
    int whole = 0;
    int partly = 0;
    for (int seed = 0; seed < 250; seed++) {
      Rulebase base = new SmallWorld(seed).rulebase(5);
      AclWriter.Exported exported = AclWriter.write(base);
      Set<String> leftOut = new HashSet<>();
      exported.leftOut().forEach(rule -> leftOut.add(rule.rule()));
      Rulebase kept =
          base.withSections(
              base.sections().stream()
                  .map(
                      s ->
                          new Section(
                              s.id(),
                              s.name(),
                              s.rules().stream()
                                  .filter(rule -> !leftOut.contains(rule.name()))
                                  .toList()))
                  .toList());
      Rulebase back = read(Json.write(exported.document())).rulebase();
      Matcher first = new Matcher(kept);
      // Zones that no written rule names are no interfaces there, so the read base lacks them.
      Matcher second = new Matcher(withZonesOf(back, base));
      for (Connection connection : all) {
        assertThat(second.decide(connection).map(Rule::verdict))
            .as("seed %d, %s", seed, connection)
            .isEqualTo(first.decide(connection).map(Rule::verdict));
      }
      List<Rule> enabled = base.rules().stream().filter(Rule::enabled).toList();
      assertThat(enabled)
          .filteredOn(rule -> rule.verdict() == Verdict.CAUTION)
          .allMatch(rule -> leftOut.contains(rule.name()));
      boolean allElse =
          enabled.stream()
              .noneMatch(r -> r.verdict() != Verdict.CAUTION && leftOut.contains(r.name()));
      whole += allElse ? 1 : 0;
      partly += allElse ? 0 : 1;
    }
    assertThat(whole).as("written whole, against %d partly", partly).isGreaterThan(150);
  }

  private static Rulebase withZonesOf(Rulebase base, Rulebase zones) {
    return new Rulebase(
        base.name(), zones.zones(), base.addresses(), base.services(), base.sections());
  }

  @Test
  void whatTheStandardCannotSayIsNamedAndLeftOutWhole() {
    Rulebase base =
        new Rulebase(
            "b",
            List.of(),
            List.of(),
            List.of(),
            List.of(
                new Section(
                    "s",
                    "S",
                    List.of(
                        Rule.matchingAll("a", "Notice first", Verdict.CAUTION),
                        Rule.matchingAll("b", "Off", Verdict.DROP).enabled(false),
                        Rule.matchingAll("c", "Rest", Verdict.DROP)))));
    AclWriter.Exported exported = AclWriter.write(base);
    assertThat(exported.leftOut())
        .extracting(AclWriter.LeftOut::number, AclWriter.LeftOut::rule)
        .containsExactly(tuple(1, "Notice first"), tuple(2, "Off"));
    assertThat(exported.leftOut().getFirst().reason()).contains("caution");
    assertThat(exported.document().toString()).contains("Rest").doesNotContain("Off");
  }

  /** With one interface only, a match on it still narrows: a gateway may have others. */
  @Test
  void aMatchOnTheOnlyInterfaceIsWritten() {
    Rule any = Rule.matchingAll("r", "R", Verdict.ALLOW);
    Rule narrow =
        any.matching(
            Criterion.of("quay"),
            any.fromAddresses(),
            any.toZones(),
            any.toAddresses(),
            any.services());
    Rulebase base =
        new Rulebase(
            "One",
            List.of(new Zone("quay", List.of(), "")),
            List.of(),
            List.of(),
            List.of(new Section("s", "S", List.of(narrow))));
    AclWriter.Exported exported = AclWriter.write(base);
    assertThat(exported.leftOut()).isEmpty();
    assertThat(Json.write(exported.document())).contains("\"ingress-interface\" : \"quay\"");
    Rulebase back = read(Json.write(exported.document())).rulebase();
    assertThat(back.rules().getFirst().fromZones().items()).containsExactly("quay");
  }

  @Test
  void whatNarrowsARuleAndCannotBeWrittenLeavesItOut() {
    Rule any = Rule.matchingAll("r", "R", Verdict.ALLOW);
    for (Rule rule :
        List.of(any.valid(new Validity(null, LocalDate.of(2026, 12, 24))), any.unfinished(true))) {
      Rulebase base =
          new Rulebase(
              "Narrow",
              List.of(),
              List.of(),
              List.of(),
              List.of(new Section("s", "S", List.of(rule))));
      assertThat(AclWriter.write(base).leftOut()).hasSize(1);
    }
  }

  @Test
  void bitsBehindTheLengthOfANetworkAreNotedWithTheirPlace() {
    String document = QUAY.replaceFirst("10\\.[0-9.]+/[0-9]+", "10.4.2.9/16");
    assertThat(read(document).notes())
        .anyMatch(
            note -> note.matches("\\$.*network: 10.4.2.9/16 has bits set .* read as 10.4.0.0/16"));
  }
}
