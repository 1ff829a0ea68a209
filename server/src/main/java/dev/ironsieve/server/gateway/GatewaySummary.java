package dev.ironsieve.server.gateway;

import java.time.Duration;
import java.time.Instant;
import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * A gateway in the list.
 *
 * @param state {@code not enrolled}, {@code waiting} (enrolled, nothing reported yet), {@code
 *     fetching}, {@code verified}, {@code in force} (the newest revision), {@code refused}, {@code
 *     behind} (an older revision), {@code silent} (nothing heard for a minute) or {@code revoked}
 * @param inForce the revision that it reported in force; nothing if it has none
 * @param newest the revision that it has to follow
 * @param reason why it refused a revision
 * @param seenAt when it was last heard of, ISO 8601
 */
public record GatewaySummary(
    @Schema(required = true) long id,
    @Schema(required = true) String name,
    @Schema(
            required = true,
            enumeration = {
              "not enrolled",
              "waiting",
              "fetching",
              "verified",
              "in force",
              "refused",
              "behind",
              "silent",
              "revoked"
            })
        String state,
    Integer inForce,
    @Schema(required = true) int newest,
    String reason,
    String seenAt) {
  private static final Duration SILENT = Duration.ofMinutes(1);

  static GatewaySummary of(StoredGateway row, Instant now) {
    return new GatewaySummary(
        row.id(),
        row.name(),
        state(row, now),
        row.inForce(),
        row.newest(),
        row.reason(),
        row.seenAt() == null ? null : row.seenAt().toString());
  }

  private static String state(StoredGateway row, Instant now) {
    if (row.revokedAt() != null) {
      return "revoked";
    }
    if (row.enrolledAt() == null) {
      return "not enrolled";
    }
    if (row.seenAt().plus(SILENT).isBefore(now)) {
      return "silent";
    }
    if (row.inForce() != null && row.inForce() == row.newest()) {
      return "in force";
    }
    if (row.stateOf() != null && row.stateOf() == row.newest()) {
      return row.state();
    }
    return row.inForce() == null ? "waiting" : "behind";
  }
}
