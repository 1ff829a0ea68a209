package dev.ironsieve.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
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
        .contains("rule 4 \"kiosk updates\" is shadowed by 3; from 10.4.7.1 ")
        .contains(": rule 3, allow, before rule 4, reject")
        .endsWith("2 found in 6 rules\n");
  }

  @Test
  void checkWritesJson() {
    Ran ran = run("check", "--format", "json", QUAY);
    assertThat(ran.code()).isEqualTo(1);
    assertThat(ran.out()).contains("\"finding\" : \"shadowed\"").contains("\"causes\" : [ 3 ]");
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
}
