package dev.ironsieve.server.demo;

import dev.ironsieve.server.gateway.Gateways;
import jakarta.enterprise.context.ApplicationScoped;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.eclipse.microprofile.config.inject.ConfigProperty;

/** The three gateways of Brindlemere, and the file with their tokens, from which they start. */
@ApplicationScoped
class DemoGateways {
  private static final List<String> NAMES =
      List.of("Harbour head office", "North terminal", "Fleet hub");

  private final Gateways gateways;
  private final Optional<Path> tokens;

  /**
   * @param tokens the file that is written: a token and a name in each line; none if left out
   */
  DemoGateways(
      Gateways gateways, @ConfigProperty(name = "iron-sieve.demo.gateways") Optional<Path> tokens) {
    this.gateways = gateways;
    this.tokens = tokens;
  }

  void add(long rulebase) {
    if (tokens.isEmpty()) {
      return;
    }
    List<String> lines = new ArrayList<>();
    for (String name : NAMES) {
      lines.add(gateways.add(rulebase, name, null).token() + " " + name);
    }
    try {
      Files.write(tokens.get(), lines);
    } catch (IOException e) {
      throw new UncheckedIOException("writing the tokens of the demo's gateways", e);
    }
  }
}
