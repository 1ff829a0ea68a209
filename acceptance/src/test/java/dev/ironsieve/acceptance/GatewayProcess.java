package dev.ironsieve.acceptance;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;

/** Runs the real gateway program in a separate process. */
final class GatewayProcess implements AutoCloseable {
  private final Process process;

  /**
   * @param data its folder
   * @param more options of the command line
   */
  GatewayProcess(Server server, Path data, String... more) {
    List<String> command =
        new ArrayList<>(
            List.of(
                Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                "-Xmx64m",
                "-cp",
                System.getProperty("java.class.path"),
                "dev.ironsieve.gateway.Main",
                "--server",
                server.address(),
                "--data",
                data.toString()));
    command.addAll(List.of(more));
    Path log = Path.of("target/gateway.log");
    try {
      process =
          new ProcessBuilder(command)
              .redirectErrorStream(true)
              .redirectOutput(ProcessBuilder.Redirect.appendTo(log.toFile()))
              .start();
    } catch (IOException e) {
      throw new UncheckedIOException("starting a gateway", e);
    }
  }

  /** Kills it. */
  @Override
  public void close() {
    process.destroyForcibly();
    try {
      process.waitFor();
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    }
  }
}
