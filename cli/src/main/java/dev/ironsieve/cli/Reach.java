package dev.ironsieve.cli;

import dev.ironsieve.core.model.DefaultRule;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.reach.ReachTable;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.ruleindex.RuleIndex;
import dev.ironsieve.core.sets.InvalidText;
import dev.ironsieve.core.text.ConnectionLine;
import dev.ironsieve.core.text.ReachLine;
import dev.ironsieve.formats.Json;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Callable;
import java.util.stream.Collectors;
import picocli.CommandLine;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Tells what decides between two ends, exactly. */
@Command(
    name = "reach",
    mixinStandardHelpOptions = true,
    description = "Tells who can reach something, or what decides between two ends.",
    footer = {
      "A question is one line, such as",
      "  who can reach datacentre from offices",
      "  who but finance can reach Ledger",
      "  what can guest-wifi reach service tcp/443",
      "  what decides between offices and internet",
      "  which features of Saltbox from guest-wifi",
      "Each line of the answer is a part of the question that one rule decides.",
      "Exit code: 0 answered, 1 the analysis limit was reached, 2 unreadable input."
    })
final class Reach implements Callable<Integer> {
  /** How the answer is written. */
  enum Format {
    text,
    csv,
    json
  }

  /**
   * One line of the answer.
   *
   * @param rule the number of the rule; missing for the default rule
   * @param parts the values on each axis that the line narrows
   * @param except numbers of the rules above that decide some of it
   * @param witness a connection of it
   */
  record Line(
      String verdict,
      Integer rule,
      String name,
      Map<String, String> parts,
      List<Integer> except,
      String witness) {}

  @Parameters(index = "0", paramLabel = "FILE", description = "Rulebase; - for standard input.")
  private Path file;

  @Parameters(index = "1..*", paramLabel = "QUESTION", arity = "1..*", description = "One line.")
  private List<String> words;

  @Option(names = "--format", description = "One of ${COMPLETION-CANDIDATES}; text if left out.")
  private Format format = Format.text;

  @CommandLine.Spec private CommandLine.Model.CommandSpec spec;

  @Override
  public Integer call() {
    PrintWriter out = spec.commandLine().getOut();
    Rulebase rulebase = RulebaseFiles.read(file, spec.commandLine().getErr());
    Rule question;
    try {
      question = ReachLine.parse(String.join(" ", words), rulebase);
    } catch (InvalidText e) {
      throw new Unreadable("question: " + e.getMessage());
    }
    RuleIndex index = new RuleIndex(rulebase);
    ReachTable table = ReachTable.ask(index, question, ReachTable.STEPS);
    Map<Rule, Integer> numbers = new HashMap<>();
    rulebase.rules().forEach(rule -> numbers.put(rule, numbers.size() + 1));
    List<Line> lines =
        table.lines().stream().map(line -> line(line, table, index, numbers)).toList();
    switch (format) {
      case text -> lines.forEach(line -> out.println(text(line)));
      case csv -> {
        out.println("verdict,rule,name,part,except,witness");
        lines.forEach(line -> out.println(csv(line)));
      }
      case json -> out.print(Json.write(lines));
    }
    if (!table.complete()) {
      spec.commandLine().getErr().println("Analysis limit reached; the list may be incomplete.");
    }
    out.flush();
    return table.complete() ? Main.FINE : Main.FOUND;
  }

  private static Line line(
      ReachTable.Line line, ReachTable table, RuleIndex index, Map<Rule, Integer> numbers) {
    return new Line(
        line.verdict().word(),
        numbers.get(line.rule()),
        DefaultRule.unless(line.rule()).name(),
        table.words(line, index.space()),
        line.except().stream().map(numbers::get).toList(),
        ConnectionLine.format(index.space().connection(line.point())));
  }

  private static String text(Line line) {
    String by =
        line.rule == null ? "the default rule" : "rule %d \"%s\"".formatted(line.rule, line.name);
    return line.verdict + " by " + by + ": " + part(line) + ", for example " + line.witness;
  }

  private static String part(Line line) {
    String part = line.parts.isEmpty() ? "everything that was asked" : parts(line);
    return line.except.isEmpty()
        ? part
        : part + "; except the part of rules above: " + list(line.except);
  }

  private static String parts(Line line) {
    return line.parts.entrySet().stream()
        .map(entry -> entry.getKey() + " " + entry.getValue())
        .collect(Collectors.joining("; "));
  }

  private static String list(List<Integer> numbers) {
    return numbers.stream().map(String::valueOf).collect(Collectors.joining(" "));
  }

  private static String csv(Line line) {
    return String.join(
        ",",
        line.verdict,
        line.rule == null ? "" : line.rule + "",
        quoted(line.name),
        quoted(parts(line)),
        list(line.except),
        quoted(line.witness));
  }

  private static String quoted(String text) {
    return '"' + text.replace("\"", "\"\"") + '"';
  }
}
