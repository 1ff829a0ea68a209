package dev.ironsieve.cli;

import dev.ironsieve.core.matcher.Matcher;
import dev.ironsieve.core.matcher.Trace;
import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Rulebase;
import dev.ironsieve.core.sets.InvalidText;
import dev.ironsieve.core.text.ConnectionLine;
import java.io.PrintWriter;
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
  @Parameters(index = "0", paramLabel = "FILE", description = "Rulebase; - for standard input.")
  private Path file;

  @Parameters(index = "1..*", paramLabel = "CONNECTION", arity = "1..*")
  private List<String> words;

  @Option(names = "--trace", description = "Also why each rule above did not decide.")
  private boolean trace;

  @CommandLine.Spec private CommandLine.Model.CommandSpec spec;

  @Override
  public Integer call() {
    PrintWriter out = spec.commandLine().getOut();
    Rulebase rulebase = RulebaseFiles.read(file, spec.commandLine().getErr());
    Connection connection;
    try {
      connection = ConnectionLine.parse(String.join(" ", words), rulebase);
    } catch (InvalidText e) {
      throw new Unreadable("connection: " + e.getMessage());
    }
    Trace found = new Matcher(rulebase).trace(connection);
    out.println(ConnectionLine.format(connection));
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

  private static String reason(Trace.Passed passed) {
    if (passed.turnedAwayBy().isEmpty()) {
      return "disabled";
    }
    return passed.turnedAwayBy().stream()
        .map(part -> part.name().toLowerCase(Locale.ROOT).replace('_', ' '))
        .collect(Collectors.joining(", "));
  }
}
