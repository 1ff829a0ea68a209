package dev.ironsieve.bench;

import dev.ironsieve.formats.Json;
import dev.ironsieve.formats.document.FromModel;
import java.io.PrintWriter;
import java.util.concurrent.Callable;
import picocli.CommandLine;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;

/**
 * The command {@code ./iron-sieve generate}: a generated rulebase, or connections to try on one.
 */
@Command(
    name = "iron-sieve generate",
    mixinStandardHelpOptions = true,
    description =
        "Writes a generated rulebase to standard output, or connections between its zones.",
    footer = "The same seed, shape and number give the same rulebase.")
public final class Generate implements Callable<Integer> {
  private static final int MOST = 1_000_000;

  @Option(names = "--shape", description = "easy (if left out), hard or adversarial.")
  private Shape shape = Shape.EASY;

  @Option(names = "--rules", description = "How many rules, 1 to 100000; 1000 if left out.")
  private int rules = 1000;

  @Option(names = "--seed", description = "A whole number; 42 if left out.")
  private long seed = 42;

  @Option(
      names = "--connections",
      description = "Instead of a rulebase this many connections, 1 to 1000000, as CSV.")
  private int connections;

  @CommandLine.Spec private CommandLine.Model.CommandSpec spec;

  public static void main(String[] args) {
    CommandLine line = new CommandLine(new Generate());
    line.setCaseInsensitiveEnumValuesAllowed(true);
    System.exit(line.execute(args));
  }

  @Override
  public Integer call() {
    if (rules < 1 || rules > 100_000 || connections < 0 || connections > MOST) {
      throw new CommandLine.ParameterException(
          spec.commandLine(), "Expected 1 to 100000 rules and at most " + MOST + " connections");
    }
    PrintWriter out = spec.commandLine().getOut();
    RulebaseGenerator generator = new RulebaseGenerator(seed, shape);
    if (connections == 0) {
      out.print(Json.write(FromModel.rulebase(generator.rulebase(rules))));
    } else {
      ConnectionLines.write(generator, connections, out);
    }
    out.flush();
    return 0;
  }
}
