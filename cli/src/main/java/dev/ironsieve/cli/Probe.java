package dev.ironsieve.cli;

import dev.ironsieve.core.matcher.Matcher;
import dev.ironsieve.core.matcher.PossibleDecisions;
import dev.ironsieve.core.matcher.Stage;
import dev.ironsieve.core.matcher.Trace;
import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.DefaultRule;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.rulebase.Rulebase;
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
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
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
      "What is left unsaid may have any value. The first answer is that for nobody signed in,",
      "an unknown device, no site and an unidentified application; others follow, with what they",
      "depend on and an example, unless all get the same verdict.",
      "Exit code: 0 decided by a rule or the default rule, 2 unreadable input."
    })
final class Probe implements Callable<Integer> {
  /** How the answers about a file of connections are written. */
  enum Format {
    csv,
    json
  }

  /**
   * The answer about one connection of a file.
   *
   * @param rule its number; missing for the default rule
   * @param certain whether every completion of the connection gets the verdict
   * @param possible numbers of the rules that may decide, {@code default} for the default rule
   */
  record Answer(
      Integer rule, String name, String verdict, boolean certain, List<String> possible) {}

  /** Most rules that may decide which are listed. */
  private static final int MOST_LISTED = 20;

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
    String verdict = DefaultRule.verdict(found.decided()).word();
    out.println(verdict + " by " + named(found.decided(), rulebase));
    printOthers(matcher.possible(connection, Matcher.STEPS), found.decided(), rulebase, out);
    out.flush();
    return Main.FINE;
  }

  /** What may decide otherwise, as long as something is left unsaid. */
  private static void printOthers(
      PossibleDecisions possible, Rule decided, Rulebase rulebase, PrintWriter out) {
    List<PossibleDecisions.Decision> others =
        possible.decisions().stream().filter(d -> d.rule() != decided).toList();
    if (possible.certain().isPresent()) {
      if (!others.isEmpty()) {
        String rules =
            others.stream()
                .limit(MOST_LISTED)
                .map(other -> named(other.rule(), rulebase))
                .collect(Collectors.joining(", "));
        out.println("certain, whatever is left unsaid; also by " + rules);
      }
      return;
    }
    for (PossibleDecisions.Decision other :
        others.subList(0, Math.min(MOST_LISTED, others.size()))) {
      String when =
          other.dependsOn().isEmpty()
              ? "otherwise: "
              : "depending on " + words(other.dependsOn()) + ": ";
      out.println(
          when
              + other.verdict().word()
              + " by "
              + named(other.rule(), rulebase)
              + ", for example "
              + ConnectionLine.format(other.witness()));
    }
    if (others.size() > MOST_LISTED) {
      out.println((others.size() - MOST_LISTED) + " more rules may decide");
    }
    if (!possible.complete()) {
      out.println("Analysis limit reached; the list may be incomplete.");
    }
  }

  private static String words(Set<Trace.CriterionName> parts) {
    return parts.stream()
        .map(part -> part.name().toLowerCase(Locale.ROOT).replace('_', ' '))
        .collect(Collectors.joining(", "));
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
    String until =
        answer.sealed()
            ? "let through, as the content stays sealed: "
            : "let through until more is known: ";
    return at + until + open + " may decide before " + decides;
  }

  private static String named(Rule rule, Rulebase rulebase) {
    return rule == null
        ? "the default rule"
        : "rule %d \"%s\"".formatted(rulebase.rules().indexOf(rule) + 1, rule.name());
  }

  /** One line in, one line out, in order; what was answered before a fault stays written. */
  private void probeAll(Rulebase rulebase, PrintWriter out) {
    Matcher matcher = new Matcher(rulebase);
    List<Rule> rules = rulebase.rules();
    String[] known = new String[rules.size() + 1]; // by position; the default rule's is the last
    if (format == Format.csv) {
      out.println("rule,name,verdict,certain,possible");
    }
    Map<String, Integer> numbers = new HashMap<>();
    rules.forEach(rule -> numbers.put(rule.id(), numbers.size() + 1));
    try (Reader input = reader()) {
      ConnectionCsv.read(
          connections.toString(),
          input,
          rulebase,
          matcher::answers,
          answers -> {
            for (Matcher.Answer answer : answers) {
              int place = answer.position() < 0 ? rules.size() : answer.position();
              if (answer.possible() == null && known[place] == null) {
                known[place] = answer(rules, answer, numbers);
              }
              out.write(answer.possible() == null ? known[place] : answer(rules, answer, numbers));
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

  private String answer(List<Rule> rules, Matcher.Answer found, Map<String, Integer> numbers) {
    Rule rule = found.position() < 0 ? null : rules.get(found.position());
    PossibleDecisions possible = found.possible();
    List<String> others =
        possible == null || possible.decisions().isEmpty()
            ? List.of(rule == null ? "default" : found.position() + 1 + "")
            : possible.decisions().stream()
                .limit(MOST_LISTED)
                .map(d -> d.rule() == null ? "default" : numbers.get(d.rule().id()) + "")
                .toList();
    Answer answer =
        new Answer(
            rule == null ? null : found.position() + 1,
            DefaultRule.unless(rule).name(),
            DefaultRule.verdict(rule).word(),
            possible == null || possible.decisions().isEmpty() || possible.certain().isPresent(),
            others);
    if (format == Format.json) {
      return Json.line(answer) + "\n";
    }
    String name = answer.name();
    boolean quote = name.contains(",") || name.contains("\"");
    return String.join(
            ",",
            answer.rule() == null ? "" : answer.rule() + "",
            quote ? '"' + name.replace("\"", "\"\"") + '"' : name,
            answer.verdict(),
            answer.certain() ? "yes" : "no",
            String.join(" ", answer.possible()))
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
