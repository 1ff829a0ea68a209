package dev.ironsieve.gateway;

import java.io.IOException;
import java.net.URI;
import java.nio.file.Path;
import java.util.concurrent.Callable;
import picocli.CommandLine;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;

/** The program {@code iron-sieve gateway}. */
@Command(
    name = "gateway",
    description = "Runs a stand-in gateway, which follows the newest revision of its rulebase.",
    mixinStandardHelpOptions = true)
public final class Main implements Callable<Integer> {
  @Option(names = "--server", required = true, description = "The address of the server.")
  private URI server;

  @Option(
      names = "--token",
      description = "The token to enrol with, needed the first time; it is valid once.")
  private String token;

  @Option(
      names = "--data",
      required = true,
      description = "The folder for the gateway's secret and its revisions.")
  private Path data;

  public static void main(String[] args) {
    System.exit(new CommandLine(new Main()).execute(args));
  }

  @Override
  public Integer call() throws IOException, InterruptedException {
    try (Revisions revisions = Revisions.open(data)) {
      Gateway gateway = new Gateway(new ServerLink(server), revisions, System.err::println);
      gateway.start(token);
      while (true) {
        gateway.follow();
      }
    }
  }
}
