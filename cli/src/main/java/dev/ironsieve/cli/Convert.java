package dev.ironsieve.cli;

import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.formats.Json;
import dev.ironsieve.formats.document.FromModel;
import dev.ironsieve.formats.rfc8519.AclWriter;
import dev.ironsieve.formats.ruletext.RuleTextFile;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.concurrent.Callable;
import picocli.CommandLine;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Writes a rulebase in the other format. */
@Command(
    name = "convert",
    mixinStandardHelpOptions = true,
    description = "Writes a rulebase to standard output in another format.",
    footer = {
      "What RFC 8519 cannot say is named on standard error. Text has the rules and their sections,",
      "one rule in a line, and no objects.",
      "Exit code: 0 written whole, 1 some rules had to be left out, 2 unreadable input."
    })
final class Convert implements Callable<Integer> {
  /** The formats that can be written. */
  enum Target {
    rfc8519,
    document,
    text
  }

  @Parameters(
      index = "0",
      paramLabel = "FILE",
      description = "Rulebase, or rules as text; - for standard input.")
  private Path file;

  @Option(names = "--to", required = true, description = "One of ${COMPLETION-CANDIDATES}.")
  private Target target;

  @Option(
      names = "--objects",
      paramLabel = "FILE.json",
      description = "For rules as text: the rulebase whose objects they name.")
  private Path objects;

  @CommandLine.Spec private CommandLine.Model.CommandSpec spec;

  @Override
  public Integer call() {
    PrintWriter out = spec.commandLine().getOut();
    PrintWriter err = spec.commandLine().getErr();
    Rulebase rulebase = RulebaseFiles.read(file, objects, err);
    if (target == Target.document) {
      out.print(Json.write(FromModel.rulebase(rulebase)));
      out.flush();
      return Main.FINE;
    }
    if (target == Target.text) {
      RuleTextFile.write(rulebase).forEach(out::println);
      out.flush();
      return Main.FINE;
    }
    AclWriter.Exported exported = AclWriter.write(rulebase);
    out.print(Json.write(exported.document()));
    out.flush();
    exported.notes().forEach(err::println);
    for (AclWriter.LeftOut rule : exported.leftOut()) {
      err.printf("Rule %d \"%s\" left out: %s%n", rule.number(), rule.rule(), rule.reason());
    }
    return exported.leftOut().isEmpty() ? Main.FINE : Main.FOUND;
  }
}
