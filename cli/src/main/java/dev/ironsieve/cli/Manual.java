package dev.ironsieve.cli;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.concurrent.Callable;
import picocli.CommandLine;
import picocli.CommandLine.Command;
import picocli.CommandLine.Parameters;

/** Writes the manual pages, for those who work on the project. */
@Command(
    name = "manual",
    hidden = true,
    mixinStandardHelpOptions = true,
    description = "Writes the manual page of each command into a folder.")
final class Manual implements Callable<Integer> {
  @Parameters(paramLabel = "FOLDER", description = "Where to.")
  private Path folder;

  @CommandLine.Spec private CommandLine.Model.CommandSpec spec;

  @Override
  public Integer call() throws IOException {
    CommandLine root = spec.root().commandLine();
    Files.createDirectories(folder);
    write(root);
    for (CommandLine command : root.getSubcommands().values()) {
      if (!command.getCommandSpec().usageMessage().hidden()) {
        write(command);
      }
    }
    return Main.FINE;
  }

  private void write(CommandLine command) throws IOException {
    Files.writeString(folder.resolve(ManualPage.fileName(command)), ManualPage.of(command));
  }
}
