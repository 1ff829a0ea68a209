package dev.ironsieve.bench;

import static org.assertj.core.api.Assertions.assertThat;

import dev.ironsieve.cli.ManualPage;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import picocli.CommandLine;

class GenerateTest {
  /** After a change of the command: {@code -Dmanual=write} writes the page anew. */
  @Test
  void theManualPageIsThatOfTheCommand() throws IOException {
    CommandLine command = new CommandLine(new Generate());
    Path page = Path.of("../docs/man").resolve(ManualPage.fileName(command));
    if ("write".equals(System.getProperty("manual"))) {
      Files.writeString(page, ManualPage.of(command));
    }
    assertThat(page).hasContent(ManualPage.of(command));
  }
}
