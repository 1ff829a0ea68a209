package dev.ironsieve.cli;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import picocli.CommandLine;
import picocli.CommandLine.Help;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Model.OptionSpec;
import picocli.CommandLine.Model.PositionalParamSpec;

/**
 * The manual page of a command in the macros of man(7), generated from its options. Footers that
 * begin with "Exit code:" make a section of their own.
 */
public final class ManualPage {
  private static final String EXIT = "Exit code:";

  private final CommandSpec spec;
  private final StringBuilder out = new StringBuilder();

  private ManualPage(CommandLine command) {
    spec = command.getCommandSpec();
  }

  /** The page, as {@code man} reads it. */
  public static String of(CommandLine command) {
    return new ManualPage(command).write();
  }

  /** The name of the page's file: the words of the command, joined, and the section. */
  public static String fileName(CommandLine command) {
    return name(command.getCommandSpec()) + ".1";
  }

  private static String name(CommandSpec spec) {
    return spec.qualifiedName("-").replace(' ', '-');
  }

  private String write() {
    String name = name(spec);
    out.append(".TH %s 1 \"\" \"Iron Sieve\"\n".formatted(name.toUpperCase(Locale.ROOT)));
    section("NAME");
    List<String> description = List.of(spec.usageMessage().description());
    text(name + " - " + String.join(" ", description));
    section("SYNOPSIS");
    Help help =
        spec.commandLine().getHelpFactory().create(spec, Help.defaultColorScheme(Help.Ansi.OFF));
    text(help.synopsis(0).replaceAll("\\s+", " ").strip());
    section("DESCRIPTION");
    description.forEach(this::text);
    List<String> exit = new ArrayList<>();
    for (String line : spec.usageMessage().footer()) {
      if (line.startsWith(EXIT)) {
        exit.add(line.substring(EXIT.length()).strip());
      } else {
        out.append(".br\n");
        text(line);
      }
    }
    if (!spec.positionalParameters().isEmpty() || !spec.options().isEmpty()) {
      section("OPTIONS");
    }
    for (PositionalParamSpec parameter : spec.positionalParameters()) {
      entry(parameter.paramLabel(), parameter.description());
    }
    for (OptionSpec option : spec.options()) {
      if (!option.hidden()) {
        String value = option.arity().max() > 0 ? "=" + option.paramLabel() : "";
        entry(String.join(", ", option.names()) + value, option.description());
      }
    }
    List<CommandLine> commands =
        spec.subcommands().values().stream()
            .filter(command -> !command.getCommandSpec().usageMessage().hidden())
            .toList();
    if (!commands.isEmpty()) {
      section("COMMANDS");
      for (CommandLine command : commands) {
        CommandSpec sub = command.getCommandSpec();
        entry(sub.name(), sub.usageMessage().description());
      }
    }
    if (!exit.isEmpty()) {
      section("EXIT STATUS");
      exit.forEach(this::text);
    }
    return out.toString();
  }

  private void section(String title) {
    out.append(".SH ").append(title).append('\n');
  }

  private void entry(String term, String... description) {
    out.append(".TP\n.B ").append(escaped(term)).append('\n');
    for (String line : description) {
      text(line);
    }
  }

  private void text(String line) {
    String escaped = escaped(line.strip());
    // A dot or a quote at the start of a line would be a request.
    out.append(escaped.startsWith(".") || escaped.startsWith("'") ? "\\&" : "");
    out.append(escaped).append('\n');
  }

  private static String escaped(String text) {
    return text.replace("\\", "\\e").replace("-", "\\-");
  }
}
