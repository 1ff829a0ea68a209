package dev.ironsieve.cli;

import dev.ironsieve.core.analysis.LiveAnalysis;
import dev.ironsieve.core.analysis.Standing;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Rulebase;
import dev.ironsieve.core.text.ConnectionLine;
import dev.ironsieve.formats.Json;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Callable;
import java.util.stream.Collectors;
import picocli.CommandLine;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Tells which rules of files no longer decide anything, and why. */
@Command(
    name = "check",
    mixinStandardHelpOptions = true,
    description =
        "Tells which rules can no longer decide anything, and which rules take it from them.",
    footer = "Exit code: 0 nothing found, 1 something found, 2 unreadable input.")
final class Check implements Callable<Integer> {
  /** How findings are written. */
  enum Format {
    text,
    json
  }

  /** One finding, as {@code --format json} writes it. */
  record Finding(
      String file,
      String finding,
      int rule,
      String name,
      List<Integer> causes,
      String witness,
      Integer decidedBy,
      String says) {}

  @Parameters(
      arity = "1..*",
      paramLabel = "FILE",
      description = "Rulebases to check; - for standard input.")
  private List<Path> files;

  @Option(names = "--format", description = "One of ${COMPLETION-CANDIDATES}.")
  private Format format = Format.text;

  @CommandLine.Spec private CommandLine.Model.CommandSpec spec;

  @Override
  public Integer call() {
    PrintWriter out = spec.commandLine().getOut();
    List<Finding> findings = new ArrayList<>();
    int rules = 0;
    for (Path file : files) {
      Rulebase rulebase = RulebaseFiles.read(file, spec.commandLine().getErr());
      rules += rulebase.rules().size();
      findings.addAll(findings(file, rulebase));
    }
    if (format == Format.json) {
      out.print(Json.write(findings));
    } else {
      findings.forEach(f -> out.println(f.file() + ": rule " + f.rule() + " " + f.says()));
      out.println(findings.size() + " found in " + rules + " rules");
    }
    out.flush();
    return findings.isEmpty() ? Main.FINE : Main.FOUND;
  }

  private static List<Finding> findings(Path file, Rulebase rulebase) {
    List<Rule> rules = rulebase.rules();
    Map<String, Integer> numbers = new HashMap<>();
    for (int i = 0; i < rules.size(); i++) {
      numbers.put(rules.get(i).id(), i + 1);
    }
    Map<String, Standing> standings = new LiveAnalysis(rulebase).standings();
    List<Finding> out = new ArrayList<>();
    for (Rule rule : rules) {
      finding(file, rule, standings.get(rule.id()), numbers, rules, out);
    }
    return out;
  }

  private static void finding(
      Path file,
      Rule rule,
      Standing standing,
      Map<String, Integer> numbers,
      List<Rule> rules,
      List<Finding> out) {
    String path = file.toString();
    int number = numbers.get(rule.id());
    String quoted = '"' + rule.name() + '"';
    switch (standing) {
      case Standing.Decides decides -> {}
      case Standing.PassedOver off -> {}
      case Standing.Empty empty ->
          out.add(
              new Finding(
                  path,
                  "empty",
                  number,
                  rule.name(),
                  List.of(),
                  null,
                  null,
                  quoted + " is empty: no feasible connection meets its criteria"));
      case Standing.Undecided open ->
          out.add(
              new Finding(
                  path,
                  "undecided",
                  number,
                  rule.name(),
                  List.of(),
                  null,
                  null,
                  quoted
                      + " is undecided: "
                      + open.question()
                      + " was not settled in "
                      + open.steps()
                      + " steps"));
      case Standing.Covered covered -> {
        List<Integer> causes = covered.causes().stream().map(numbers::get).toList();
        int decidedBy = numbers.get(covered.decidedBy());
        String kind = covered.kind() == Standing.Kind.SHADOWED ? "shadowed" : "redundant-above";
        String list = causes.stream().map(String::valueOf).collect(Collectors.joining(", "));
        String witness = ConnectionLine.format(covered.witness());
        String verdict = rules.get(decidedBy - 1).verdict().word();
        out.add(
            new Finding(
                path,
                kind,
                number,
                rule.name(),
                causes,
                witness,
                decidedBy,
                "%s is %s by %s; %s: rule %d, %s, before rule %d, %s"
                    .formatted(
                        quoted,
                        kind.replace("-above", ""),
                        list,
                        witness,
                        decidedBy,
                        verdict,
                        number,
                        rule.verdict().word())));
      }
    }
  }
}
