package dev.ironsieve.server.demo;

import dev.ironsieve.server.gateway.Gateways;
import jakarta.enterprise.context.ApplicationScoped;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.eclipse.microprofile.config.inject.ConfigProperty;

/** The gateways of Brindlemere, and the file with their tokens, from which they start. */
@ApplicationScoped
class DemoGateways {
  /** The rulebase that each follows, by the name of its file. */
  private static final Map<String, String> RULEBASES = new LinkedHashMap<>();

  static {
    RULEBASES.put("Harbour head office", "harbour");
    RULEBASES.put("North terminal", "harbour");
    RULEBASES.put("Fleet hub", "harbour");
    RULEBASES.put("Fleet hub services", "services");
    RULEBASES.put("Pier three", "terminals");
  }

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

  /**
   * @param ids of rulebases, by the names of their files
   */
  void add(Map<String, Long> ids) {
    if (tokens.isEmpty()) {
      return;
    }
    List<String> lines = new ArrayList<>();
    RULEBASES.forEach(
        (name, file) -> lines.add(gateways.add(ids.get(file), name, null).token() + " " + name));
    try {
      Files.write(tokens.get(), lines);
    } catch (IOException e) {
      throw new UncheckedIOException("writing the tokens of the demo's gateways", e);
    }
  }
}
