package dev.ironsieve.server.log;

import java.util.List;
import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * How often a rule decided, on all gateways.
 *
 * @param connections that it decided since the first hit
 * @param rule its id; left out for the default rule
 * @param open connections by it that are open now
 * @param observed connections that it would have decided while it only observed
 * @param differing of the observed ones, how many got another verdict
 * @param firstAt ISO 8601
 * @param lastAt ISO 8601
 * @param hours connections in each of the last 24 hours, the oldest first
 */
public record RuleHits(
    @Schema(required = true) long connections,
    String rule,
    @Schema(required = true) long open,
    @Schema(required = true) long observed,
    @Schema(required = true) long differing,
    @Schema(required = true) long packets,
    @Schema(required = true) long bytes,
    @Schema(required = true) String firstAt,
    @Schema(required = true) String lastAt,
    @Schema(required = true) List<Long> hours) {
  /** How many hours {@code hours} has. */
  public static final int HOURS = 24;
}
