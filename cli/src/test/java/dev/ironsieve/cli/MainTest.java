package dev.ironsieve.cli;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.PrintWriter;
import java.io.StringReader;
import java.io.StringWriter;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import javax.xml.parsers.DocumentBuilderFactory;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.w3c.dom.Document;
import org.w3c.dom.Element;
import org.xml.sax.InputSource;
import picocli.CommandLine;

class MainTest {
  private static final String QUAY = "src/test/resources/quay-acls.json";

  private record Ran(int code, String out, String err) {}

  private static Ran run(String... args) {
    StringWriter out = new StringWriter();
    StringWriter err = new StringWriter();
    CommandLine line = Main.commandLine().setOut(new PrintWriter(out)).setErr(new PrintWriter(err));
    return new Ran(line.execute(args), out.toString(), err.toString());
  }

  @Test
  void checkNamesTheShadowedRuleItsCauseAndAWitness() {
    Ran ran = run("check", QUAY);
    assertThat(ran.code()).isEqualTo(1);
    assertThat(ran.out())
        .contains("error: rule 4 \"kiosk updates\" is shadowed by 3; from 10.4.7.1 ")
        .contains(": rule 3, allow, before rule 4, reject")
        .contains("note: rule 5 \"rest\" generalises 1; ")
        .endsWith("3 found in 6 rules\n");
  }

  @Test
  void checkWritesJson() {
    Ran ran = run("check", "--format", "json", QUAY);
    assertThat(ran.code()).isEqualTo(1);
    assertThat(ran.out()).contains("\"finding\" : \"shadowed\"").contains("\"causes\" : [ 3 ]");
  }

  @Test
  void failsFromTheSeverityOnThatIsAskedFor(@TempDir Path folder) throws IOException {
    assertThat(run("check", "--fail-on", "error", QUAY).code()).isEqualTo(1);
    Path exception = folder.resolve("exception.json");
    Files.writeString(
        exception,
        """
        {"ironSieve": 1, "name": "n", "sections": [{"name": "s", "rules": [
          {"name": "but this", "verdict": "drop", "services": {"items": ["tcp/25"]}},
          {"name": "tcp", "verdict": "allow", "services": {"items": ["tcp"]}}]}]}
        """);
    assertThat(run("check", exception.toString()).code()).isZero();
    assertThat(run("check", "--fail-on", "note", exception.toString()).code()).isEqualTo(1);
    assertThat(run("check", "--fail-on", "none", exception.toString()).code()).isEqualTo(2);
  }

  @Test
  void checkWritesSarif() throws IOException {
    Ran ran = run("check", "--format", "sarif", QUAY);
    JsonNode run = new ObjectMapper().readTree(ran.out()).path("runs").path(0);
    assertThat(run.path("tool").path("driver").path("rules"))
        .extracting(kind -> kind.path("id").asText())
        .contains("empty", "shadowed", "redundant-above", "redundant-below", "correlated")
        .contains("generalised", "undecided", "too-broad", "mergeable");
    JsonNode first = run.path("results").path(0);
    assertThat(first.path("ruleId").asText()).isEqualTo("shadowed");
    assertThat(first.path("level").asText()).isEqualTo("error");
    JsonNode location = first.path("locations").path(0);
    assertThat(location.at("/physicalLocation/artifactLocation/uri").asText()).isEqualTo(QUAY);
    assertThat(location.at("/logicalLocations/0/name").asText()).isEqualTo("kiosk updates");
    assertThat(first.at("/relatedLocations/0/logicalLocations/0/name").asText())
        .isEqualTo("all but mail");
    int index = first.path("ruleIndex").asInt();
    assertThat(run.at("/tool/driver/rules/" + index + "/id").asText()).isEqualTo("shadowed");
  }

  @Test
  void checkWritesJUnitXml() throws Exception {
    Ran ran = run("check", "--format", "junit", QUAY);
    Document xml =
        DocumentBuilderFactory.newInstance()
            .newDocumentBuilder()
            .parse(new InputSource(new StringReader(ran.out())));
    Element suite = (Element) xml.getElementsByTagName("testsuite").item(0);
    assertThat(suite.getAttribute("tests")).isEqualTo("4");
    assertThat(suite.getAttribute("failures")).isEqualTo("2");
    assertThat(xml.getElementsByTagName("testcase").getLength()).isEqualTo(4);
    assertThat(((Element) xml.getElementsByTagName("failure").item(0)).getAttribute("type"))
        .isEqualTo("shadowed");
  }

  @Test
  void probesAFileOfConnectionsLineByLine(@TempDir Path folder) throws IOException {
    Path csv = folder.resolve("connections.csv");
    Files.writeString(
        csv,
        """
        from-address,to-address,protocol,to-port
        10.4.7.9,192.0.2.10,tcp,8080
        2001:db8::7,,,
        """);
    Ran ran = run("probe", QUAY, "--connections", csv.toString());
    assertThat(ran.code()).isZero();
    assertThat(ran.out())
        .isEqualTo(
            """
            rule,name,verdict,certain,possible
            3,all but mail,allow,yes,3
            5,rest,drop,yes,5
            """);
    assertThat(ran.err()).contains("10.4.2.9/16 has bits set").doesNotContain("line");
    assertThat(run("probe", QUAY, "--connections", csv.toString(), "--format", "json").out())
        .startsWith(
            "{\"rule\":3,\"name\":\"all but mail\",\"verdict\":\"allow\",\"certain\":true,"
                + "\"possible\":[\"3\"]}\n");
    Files.writeString(csv, "from-address,protocol\n10.4.7.9,tcp\n");
    assertThat(run("probe", QUAY, "--connections", csv.toString()).out())
        .endsWith("5,rest,drop,no,1 3 5\n");
    Files.writeString(csv, "from-address\n10.4.7.9\n10.4.7.999\n");
    Ran broken = run("probe", QUAY, "--connections", csv.toString());
    assertThat(broken.code()).isEqualTo(2);
    assertThat(broken.err()).contains("connections.csv: line 3, from-address").contains("0 to 255");
    assertThat(run("probe", QUAY).code()).isEqualTo(2);
  }

  @Test
  void probeTellsWhatIsDoneAtEachStage(@TempDir Path folder) throws IOException {
    Path file = folder.resolve("posts.json");
    Files.writeString(
        file,
        """
        {"ironSieve": 1, "name": "n",
         "vocabularies": [{"coordinate": "application", "edition": "1",
           "values": ["chat: post", "chat: view", "mail"],
           "sets": [{"name": "chat", "members": ["chat: post", "chat: view"]}]}],
         "sections": [{"name": "s", "rules": [
          {"name": "no posts", "verdict": "reject", "opening": "opened",
           "terms": {"application": {"items": ["chat: post"]}}},
          {"name": "chat", "verdict": "allow", "terms": {"application": {"items": ["chat"]}}}]}]}
        """);
    String line = "from 10.0.0.1 to 10.0.0.2 tcp/443 application chat: post";
    Ran ran = run("probe", "--stages", file.toString(), line);
    assertThat(ran.err()).isEmpty();
    assertThat(ran.out())
        .isEqualTo(
            """
            from 10.0.0.1 to 10.0.0.2 tcp/443 application chat: post
            at the first packet: let through until more is known: rule 1 "no posts", rule 2 "chat" \
            may decide before the default rule
            at the handshake: let through until more is known: rule 1 "no posts" \
            may decide before rule 2 "chat"
            by its content: reject by rule 1 "no posts"
            reject by rule 1 "no posts"
            """);
  }

  @Test
  void probeSaysWhatElseMayDecideWhereSomethingIsUnsaid(@TempDir Path folder) throws IOException {
    Path file = folder.resolve("devices.json");
    Files.writeString(
        file,
        """
        {"ironSieve": 1, "name": "n", "sections": [{"name": "s", "rules": [
          {"name": "ours", "verdict": "allow", "terms": {"device": {"items": ["managed"]}}},
          {"name": "also ours", "verdict": "allow", "terms": {"device": {"items": ["unmanaged"]}},
           "services": {"items": ["tcp/22"]}},
          {"name": "rest", "verdict": "drop"}]}]}
        """);
    String line = "from 10.0.0.1 to 10.0.0.2 tcp/443";
    assertThat(run("probe", file.toString(), line).out())
        .contains("drop by rule 3 \"rest\"\n")
        .contains("depending on device: allow by rule 1 \"ours\", for example from 10.0.0.1")
        .doesNotContain("also ours");
    assertThat(run("probe", file.toString(), line + " device managed").out())
        .endsWith("allow by rule 1 \"ours\"\n");
  }

  @Test
  void checkTakesTheDayFromWhichOnTimesCount(@TempDir Path folder) throws IOException {
    Path file = folder.resolve("dates.json");
    Files.writeString(
        file,
        """
        {"ironSieve": 1, "name": "n", "sections": [{"name": "s", "rules": [
          {"name": "trial", "verdict": "allow", "services": {"items": ["tcp/22"]},
           "end": "2026-12-24"}]}]}
        """);
    assertThat(run("check", "--day", "2026-12-25", file.toString()).out())
        .contains("has expired: its last day was 2026-12-24");
    assertThat(run("check", "--day", "2026-12-24", file.toString()).out())
        .contains("ends soon: its last day is 2026-12-24");
    assertThat(run("check", "--day", "2026-10-01", file.toString()).out())
        .doesNotContain("2026-12-24");
  }

  @Test
  void diffTellsWhatIsDecidedOtherwise(@TempDir Path folder) throws IOException {
    String text =
        """
        {"ironSieve": 1, "name": "n", "sections": [{"name": "s", "rules": [
          {"id": "a", "name": "web", "verdict": "allow", "services": {"items": ["tcp/443"]}},
          {"id": "b", "name": "mail", "verdict": "allow", "services": {"items": ["tcp/25"]}}]}]}
        """;
    Path old = Files.writeString(folder.resolve("old.json"), text);
    Path next = Files.writeString(folder.resolve("new.json"), text.replace("tcp/25", "tcp/587"));
    Ran ran = run("diff", old.toString(), next.toString());
    assertThat(ran.code()).isEqualTo(1);
    assertThat(ran.out())
        .contains("allow by \"mail\" becomes drop by \"default rule\"")
        .contains("drop by \"default rule\" becomes allow by \"mail\"")
        .contains("    service tcp/587\n")
        .contains("  such as from ");
    assertThat(run("diff", old.toString(), old.toString()).code()).isZero();
    assertThat(run("diff", "--format", "json", old.toString(), next.toString()).out())
        .contains("\"after\" : \"allow\"");
    assertThat(run("diff", old.toString(), QUAY).err()).contains("expected the zones");
  }

  @Test
  void diffComparesOtherAspectsToo(@TempDir Path folder) throws IOException {
    String text =
        """
        {"ironSieve": 1, "name": "n", "sections": [{"name": "s", "rules": [
          {"id": "a", "name": "web", "verdict": "allow", "services": {"items": ["tcp/443"]}}]}]}
        """;
    Path old = Files.writeString(folder.resolve("old.json"), text);
    Path logged =
        Files.writeString(
            folder.resolve("new.json"),
            text.replace("\"verdict\": \"allow\"", "\"verdict\": \"allow\", \"log\": \"end\""));
    assertThat(run("diff", old.toString(), logged.toString()).code()).isZero();
    Ran ran = run("diff", "--by", "logging", old.toString(), logged.toString());
    assertThat(ran.code()).isEqualTo(1);
    assertThat(ran.out()).contains("service tcp/443");
    assertThat(run("diff", "--by", "taste", old.toString(), logged.toString()).code()).isEqualTo(2);
  }

  @Test
  void aRulebaseIsReadFromStandardInputAndSeveralAreChecked(@TempDir Path folder)
      throws IOException {
    String text = Files.readString(Path.of(QUAY));
    InputStream before = System.in;
    try {
      System.setIn(new ByteArrayInputStream(text.getBytes(StandardCharsets.UTF_8)));
      assertThat(run("check", "-").out()).isEqualTo(run("check", QUAY).out().replace(QUAY, "-"));
      System.setIn(new ByteArrayInputStream(text.getBytes(StandardCharsets.UTF_8)));
      assertThat(run("diff", QUAY, "-").code()).isZero();
    } finally {
      System.setIn(before);
    }
    Path copy = Files.writeString(folder.resolve("copy.json"), text);
    Ran several = run("check", "--format", "json", copy.toString(), QUAY);
    assertThat(several.out()).contains("copy.json").contains(QUAY);
    assertThat(several.code()).isEqualTo(run("check", QUAY).code());
  }

  @Test
  void probeTellsTheRuleAndWhyOthersPassed() {
    Ran ran = run("probe", "--trace", QUAY, "from 10.4.7.9 to 192.0.2.10 tcp/8080");
    assertThat(ran.code()).isZero();
    assertThat(ran.out())
        .contains("rule 1 \"booking web\" passed by: service")
        .contains("rule 2 \"names\" passed by: service")
        .endsWith("allow by rule 3 \"all but mail\"\n");
    assertThat(run("probe", QUAY, "from", "2001:db8::7").out())
        .endsWith("drop by rule 5 \"rest\"\n");
  }

  @Test
  void reachTellsWhichRuleDecidesWhichPart(@TempDir Path folder) throws IOException {
    Path file = folder.resolve("rules.json");
    Files.writeString(
        file,
        """
        {"ironSieve": 1, "name": "n",
          "zones": [{"name": "quay", "members": ["10.1.0.0/16"]}, {"name": "store"}],
          "sections": [{"name": "s", "rules": [
          {"name": "no mail", "verdict": "drop", "services": {"items": ["tcp/25"]}},
          {"name": "tcp", "verdict": "allow", "fromZones": {"items": ["quay"]},
            "services": {"items": ["tcp"]}}]}]}
        """);
    Ran ran = run("reach", file.toString(), "who", "can", "reach", "store", "from", "quay");
    assertThat(ran.err()).isEmpty();
    assertThat(ran.code()).isZero();
    assertThat(ran.out())
        .contains("drop by rule 1 \"no mail\": service tcp/25, for example ")
        .contains("allow by rule 2 \"tcp\": service tcp/0-24, tcp/26-65535, for example ")
        .contains("drop by the default rule: service ");
    Ran csv = run("reach", "--format", "csv", file.toString(), "from quay to store service tcp/25");
    assertThat(csv.out())
        .startsWith("verdict,rule,name,part,except,witness\ndrop,1,\"no mail\",\"\",,\"from ")
        .hasLineCount(2);
    Ran json =
        run("reach", "--format", "json", file.toString(), "from quay to store service tcp/25");
    assertThat(new ObjectMapper().readTree(json.out()).path(0).path("verdict").asText())
        .isEqualTo("drop");
    Ran wrong = run("reach", file.toString(), "who can reach nothing");
    assertThat(wrong.code()).isEqualTo(2);
    assertThat(wrong.err()).contains("question: at character 15: expected a zone");
  }

  @Test
  void aWrongLineOrFileIsExplainedAndExitsWithTwo(@TempDir Path folder) throws IOException {
    Ran line = run("probe", QUAY, "from 10.4.7.999");
    assertThat(line.code()).isEqualTo(2);
    assertThat(line.err()).contains("character 13").contains("0 to 255");
    assertThat(run("check", "no-such-file.json").err()).contains("expected a file, found nothing");
    assertThat(run("check").code()).isEqualTo(2);
    Path broken = folder.resolve("broken.json");
    Files.writeString(broken, "{\"ironSieve\": 1, \"name\": ");
    Ran check = run("check", broken.toString());
    assertThat(check.code()).isEqualTo(2);
    assertThat(check.err()).contains("broken.json: ").contains("line 1");
  }

  @Test
  void convertGoesToOurDocumentAndBack(@TempDir Path folder) throws IOException {
    Ran document = run("convert", "--to", "document", QUAY);
    assertThat(document.code()).isZero();
    Path file = folder.resolve("quay.json");
    Files.writeString(file, document.out());
    assertThat(run("check", file.toString()).out()).contains("\"kiosk updates\" is shadowed by 3");
    Ran back = run("convert", "--to", "rfc8519", file.toString());
    assertThat(back.code()).isZero();
    Path again = folder.resolve("again.json");
    Files.writeString(again, back.out());
    assertThat(run("check", again.toString()).out()).contains("kiosk updates");
  }

  @Test
  void rulesAsTextAreCheckedAndConverted(@TempDir Path folder) throws IOException {
    Path text = folder.resolve("mail.txt");
    Files.writeString(
        text,
        """
        # from a mail
        allow "all" from in quay
        drop "no mail" from in quay service tcp/25
        """);
    Ran checked = run("check", text.toString());
    assertThat(checked.code()).isEqualTo(1);
    assertThat(checked.out()).contains("rule 2 \"no mail\" is shadowed by 1");
    Ran document = run("convert", "--to", "document", text.toString());
    Path json = folder.resolve("mail.json");
    Files.writeString(json, document.out());
    assertThat(run("convert", "--to", "text", json.toString()).out())
        .isEqualTo(
            "section \"Rules\"\nallow \"all\" from in quay\n"
                + "drop \"no mail\" from in quay service tcp/25\n");
    Files.writeString(text, "allow \"a\" to Kiosks");
    assertThat(run("check", text.toString()).code()).isEqualTo(2);
    Path objects = folder.resolve("objects.json");
    Files.writeString(
        objects,
        """
        {"ironSieve": 1, "name": "n", "addresses": [{"name": "Kiosks", "members": ["10.4.0.0/16"]}],
          "sections": [{"name": "s", "rules": []}]}
        """);
    assertThat(run("check", "--objects", objects.toString(), text.toString()).out())
        .endsWith("found in 1 rules\n");
  }

  /** After a change of a command: {@code ./iron-sieve manual docs/man}. */
  @Test
  void theManualPagesAreThoseOfTheCommands(@TempDir Path folder) throws IOException {
    assertThat(run("manual", folder.toString()).code()).isZero();
    Path docs = Path.of("../docs/man");
    for (String name :
        new String[] {"", "-check", "-probe", "-reach", "-diff", "-convert", "-help"}) {
      String file = "iron-sieve" + name + ".1";
      assertThat(folder.resolve(file)).hasSameTextualContentAs(docs.resolve(file));
    }
    assertThat(folder.resolve("iron-sieve-check.1"))
        .content()
        .startsWith(".TH IRON-SIEVE-CHECK 1")
        .contains(".SH SYNOPSIS\niron\\-sieve check ")
        .contains(".B \\-\\-fail\\-on=")
        .contains(".SH EXIT STATUS\n0 ");
  }
}
