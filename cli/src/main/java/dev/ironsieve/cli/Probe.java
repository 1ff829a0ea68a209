package dev.ironsieve.cli;

import dev.ironsieve.core.matcher.Matcher;
import dev.ironsieve.core.matcher.Stage;
import dev.ironsieve.core.matcher.Trace;
import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Rulebase;
import dev.ironsieve.core.sets.InvalidText;
import dev.ironsieve.core.text.ConnectionLine;
import dev.ironsieve.formats.Json;
import dev.ironsieve.formats.csv.ConnectionCsv;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.PrintWriter;
import java.io.Reader;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.concurrent.Callable;
import java.util.stream.Collectors;
import picocli.CommandLine;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Tells which rule decides a connection. */
@Command(
    name = "probe",
    mixinStandardHelpOptions = true,
    description = "Tells which rule decides a connection.",
    footer = {
      "The connection is one line, such as",
      "  from 10.4.2.9 in terminals to 192.0.2.10 tcp/443 from port 50000",
      "Exit code: 0 decided by a rule or the closing rule, 2 unreadable input."
    })
final class Probe implements Callable<Integer> {
  /** How the answers about a file of connections are written. */
  enum Format {
    csv,
    json
  }

  /**
   * The answer about one connection of a file; the rule's number is missing for the closing rule.
   */
  record Answer(Integer rule, String name, String verdict) {}

  @Parameters(index = "0", paramLabel = "FILE", description = "Rulebase; - for standard input.")
  private Path file;

  @Parameters(
      index = "1..*",
      paramLabel = "CONNECTION",
      arity = "0..*",
      description = "A connection in one line; none with --connections.")
  private List<String> words = List.of();

  @Option(
      names = "--connections",
      paramLabel = "FILE.csv",
      description = "Connections, one a line, with a header; - for standard input.")
  private Path connections;

  @Option(
      names = "--format",
      description = "With --connections one of ${COMPLETION-CANDIDATES}; csv if left out.")
  private Format format = Format.csv;

  @Option(names = "--trace", description = "Also why each rule above did not decide.")
  private boolean trace;

  @Option(
      names = "--stages",
      description = "Also what is done while the application, its feature and paths are not known.")
  private boolean stages;

  @CommandLine.Spec private CommandLine.Model.CommandSpec spec;

  @Override
  public Integer call() {
    PrintWriter out = spec.commandLine().getOut();
    if ((connections == null) == words.isEmpty()) {
      throw new CommandLine.ParameterException(
          spec.commandLine(), "Expected either a connection or --connections FILE.csv");
    }
    Rulebase rulebase = RulebaseFiles.read(file, spec.commandLine().getErr());
    if (connections != null) {
      probeAll(rulebase, out);
      return Main.FINE;
    }
    Connection connection;
    try {
      connection = ConnectionLine.parse(String.join(" ", words), rulebase);
    } catch (InvalidText e) {
      throw new Unreadable("connection: " + e.getMessage());
    }
    Matcher matcher = new Matcher(rulebase);
    Trace found = matcher.trace(connection);
    out.println(ConnectionLine.format(connection));
    if (stages) {
      matcher.stages(connection).forEach(answer -> out.println(told(answer, rulebase)));
    }
    int number = 1;
    for (Trace.Passed passed : found.passed()) {
      if (trace) {
        out.printf("rule %d \"%s\" passed by: %s%n", number, passed.rule().name(), reason(passed));
      }
      number++;
    }
    if (found.decided() == null) {
      out.println("drop by the closing rule");
    } else {
      out.printf(
          "%s by rule %d \"%s\"%n",
          found.decided().verdict().word(), number, found.decided().name());
    }
    out.flush();
    return Main.FINE;
  }

  private static String told(Stage.Answer answer, Rulebase rulebase) {
    String at =
        switch (answer.stage()) {
          case FIRST_PACKET -> "at the first packet: ";
          case HANDSHAKE -> "at the handshake: ";
          case CONTENT -> "by its content: ";
        };
    String decides = named(answer.decides(), rulebase);
    if (answer.settled()) {
      return at + answer.verdict().word() + " by " + decides;
    }
    String open =
        answer.open().stream().map(rule -> named(rule, rulebase)).collect(Collectors.joining(", "));
    return at + "let through until more is known: " + open + " may decide before " + decides;
  }

  private static String named(Rule rule, Rulebase rulebase) {
    return rule == null
        ? "the closing rule"
        : "rule %d \"%s\"".formatted(rulebase.rules().indexOf(rule) + 1, rule.name());
  }

  /** One line in, one line out, in order; what was answered before a fault stays written. */
  private void probeAll(Rulebase rulebase, PrintWriter out) {
    Matcher matcher = new Matcher(rulebase);
    List<Rule> rules = rulebase.rules();
    String[] answers = new String[rules.size() + 1]; // by position; the closing rule's is the last
    if (format == Format.csv) {
      out.println("rule,name,verdict");
    }
    try (Reader input = reader()) {
      ConnectionCsv.read(
          connections.toString(),
          input,
          rulebase,
          matcher::positions,
          positions -> {
            for (int position : positions) {
              int place = position < 0 ? rules.size() : position;
              if (answers[place] == null) {
                answers[place] = answer(rules, position);
              }
              out.write(answers[place]);
            }
          });
    } catch (IOException e) {
      throw new Unreadable(connections + ": cannot be read: " + e.getMessage());
    } finally {
      out.flush();
    }
  }

  private Reader reader() throws IOException {
    if (connections.toString().equals("-")) {
      return new InputStreamReader(System.in, StandardCharsets.UTF_8);
    }
    if (!Files.isRegularFile(connections)) {
      throw new Unreadable(connections + ": expected a file, found nothing");
    }
    return new InputStreamReader(Files.newInputStream(connections), StandardCharsets.UTF_8);
  }

  private String answer(List<Rule> rules, int position) {
    Rule rule = position < 0 ? null : rules.get(position);
    Answer answer =
        new Answer(
            rule == null ? null : position + 1,
            rule == null ? "closing rule" : rule.name(),
            rule == null ? "drop" : rule.verdict().word());
    if (format == Format.json) {
      return Json.line(answer) + "\n";
    }
    String name = answer.name();
    boolean quote = name.contains(",") || name.contains("\"");
    return (answer.rule() == null ? "" : answer.rule())
        + ","
        + (quote ? '"' + name.replace("\"", "\"\"") + '"' : name)
        + ","
        + answer.verdict()
        + "\n";
  }

  private static String reason(Trace.Passed passed) {
    if (passed.turnedAwayBy().isEmpty()) {
      return "disabled";
    }
    return passed.turnedAwayBy().stream()
        .map(part -> part.name().toLowerCase(Locale.ROOT).replace('_', ' '))
        .collect(Collectors.joining(", "));
  }
}
