package dev.ironsieve.server.log;

import java.util.List;
import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * How often a rule decided, on all gateways.
 *
 * @param rule its id; left out for the default rule
 * @param connections since the first hit
 * @param differing of these, how many got another verdict; 0 unless the rule only observes
 * @param firstAt ISO 8601
 * @param lastAt ISO 8601
 * @param hours connections in each of the last 24 hours, the oldest first
 */
public record RuleHits(
    String rule,
    @Schema(required = true) long connections,
    @Schema(required = true) long differing,
    @Schema(required = true) long packets,
    @Schema(required = true) long bytes,
    @Schema(required = true) String firstAt,
    @Schema(required = true) String lastAt,
    @Schema(required = true) List<Long> hours) {
  /** How many hours {@code hours} has. */
  public static final int HOURS = 24;
}
