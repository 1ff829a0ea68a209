package dev.ironsieve.cli;

import dev.ironsieve.core.difference.Aspect;
import dev.ironsieve.core.difference.Difference;
import dev.ironsieve.core.difference.Differences;
import dev.ironsieve.core.model.DefaultRule;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.text.ConnectionLine;
import dev.ironsieve.formats.Json;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.concurrent.Callable;
import picocli.CommandLine;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Tells which connections two rulebases decide otherwise. */
@Command(
    name = "diff",
    mixinStandardHelpOptions = true,
    description = "Tells which connections another rulebase decides otherwise, the most first.",
    footer = {
      "Both have to have the same zones and the same values in their vocabularies.",
      "Exit code: 0 none, 1 some (or not settled within the budget), 2 unreadable input."
    })
final class Diff implements Callable<Integer> {
  /** How differences are written. */
  enum Format {
    text,
    json
  }

  /** One part of the difference, as {@code --format json} writes it. */
  record Part(
      List<String> connections,
      String extent,
      double share,
      String before,
      String beforeRule,
      String after,
      String afterRule,
      String witness) {}

  @Parameters(index = "0", paramLabel = "OLD", description = "Rulebase; - for standard input.")
  private Path old;

  @Parameters(index = "1", paramLabel = "NEW", description = "Rulebase; - for standard input.")
  private Path next;

  @Option(
      names = "--by",
      paramLabel = "ASPECT",
      description = "verdict (if left out), rule, logging, opening or rate_plan.")
  private Aspect aspect = Aspect.VERDICT;

  @Option(names = "--format", description = "One of ${COMPLETION-CANDIDATES}.")
  private Format format = Format.text;

  @CommandLine.Spec private CommandLine.Model.CommandSpec spec;

  @Override
  public Integer call() {
    PrintWriter out = spec.commandLine().getOut();
    Rulebase before = RulebaseFiles.read(old, spec.commandLine().getErr());
    Rulebase after = RulebaseFiles.read(next, spec.commandLine().getErr());
    Difference difference = between(before, after);
    if (format == Format.json) {
      out.print(
          Json.write(difference.parts().stream().map(part -> part(part, difference)).toList()));
    } else {
      difference.parts().forEach(part -> write(part, difference, out));
      out.println(difference.parts().size() + " kinds of connections are decided otherwise");
    }
    out.flush();
    if (!difference.complete()) {
      spec.commandLine().getErr().println("There may be more: the budget of work ran out.");
    }
    return difference.isEmpty() ? Main.FINE : Main.FOUND;
  }

  private Difference between(Rulebase before, Rulebase after) {
    try {
      return Differences.between(before, after, aspect);
    } catch (IllegalArgumentException e) {
      throw new Unreadable(next + ": expected the zones and values of " + old + ", found others");
    }
  }

  private static Part part(Difference.ChangedBox part, Difference difference) {
    return new Part(
        difference.words(part),
        extent(part),
        part.share(),
        verdict(part.before()),
        name(part.before()),
        verdict(part.after()),
        name(part.after()),
        ConnectionLine.format(part.witness()));
  }

  /** In JSON: "whole", "decided-before" or "decided-after". */
  private static String extent(Difference.ChangedBox part) {
    return part.extent().name().toLowerCase(Locale.ROOT).replace('_', '-');
  }

  private static void write(Difference.ChangedBox part, Difference difference, PrintWriter out) {
    out.printf(
        "%s by \"%s\" becomes %s by \"%s\"%n",
        verdict(part.before()), name(part.before()), verdict(part.after()), name(part.after()));
    switch (part.extent()) {
      case WHOLE -> {}
      case DECIDED_BEFORE -> out.printf("    what \"%s\" decided of%n", name(part.before()));
      case DECIDED_AFTER -> out.printf("    what \"%s\" decides of%n", name(part.after()));
    }
    difference.words(part).forEach(side -> out.println("    " + side));
    out.println("  such as " + ConnectionLine.format(part.witness()));
  }

  private static String verdict(Rule rule) {
    return DefaultRule.verdict(rule).word();
  }

  private static String name(Rule rule) {
    return DefaultRule.unless(rule).name();
  }
}
