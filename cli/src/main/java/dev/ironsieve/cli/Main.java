package dev.ironsieve.cli;

import dev.ironsieve.formats.Fault;
import dev.ironsieve.formats.InvalidDocument;
import java.io.PrintWriter;
import java.util.Locale;
import picocli.CommandLine;
import picocli.CommandLine.Command;

/**
 * The program {@code iron-sieve} for pipelines. Exit codes: 0 fine, 1 something was found, 2 the
 * input or the call is wrong.
 */
@Command(
    name = "iron-sieve",
    description = "Works on rulebases in files: our own JSON document or RFC 8519 (JSON).",
    subcommands = {
      Check.class,
      Probe.class,
      Reach.class,
      Diff.class,
      Recognise.class,
      Convert.class,
      Manual.class,
      CommandLine.HelpCommand.class
    },
    mixinStandardHelpOptions = true)
public final class Main implements Runnable {
  static final int FINE = 0;
  static final int FOUND = 1;
  static final int UNREADABLE = 2;

  @CommandLine.Spec private CommandLine.Model.CommandSpec spec;

  public static void main(String[] args) {
    System.exit(commandLine().execute(args));
  }

  static CommandLine commandLine() {
    CommandLine line = new CommandLine(new Main());
    line.setCaseInsensitiveEnumValuesAllowed(true);
    line.setExecutionExceptionHandler(
        (e, commandLine, parsed) -> {
          PrintWriter err = commandLine.getErr();
          switch (e) {
            case InvalidDocument invalid -> {
              for (Fault fault : invalid.faults()) {
                err.println(fault);
              }
            }
            case Unreadable unreadable -> err.println(unreadable.getMessage());
            default -> throw e;
          }
          return UNREADABLE;
        });
    return line;
  }

  /** A constant as people write it. */
  static String word(Enum<?> constant) {
    return constant.name().toLowerCase(Locale.ROOT);
  }

  @Override
  public void run() {
    spec.commandLine().usage(spec.commandLine().getOut());
  }
}
