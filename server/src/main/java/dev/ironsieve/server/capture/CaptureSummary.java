package dev.ironsieve.server.capture;

import java.util.Locale;
import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * One capture in the list, or the recent log.
 *
 * @param kind {@code sample}, {@code brought} or {@code recent}
 * @param newest the number of the newest connection; of the recent log, it grows
 */
public record CaptureSummary(
    @Schema(required = true) long id,
    @Schema(required = true) String name,
    @Schema(required = true) String kind,
    @Schema(required = true) long packets,
    @Schema(required = true) int connections,
    @Schema(required = true) long newest) {
  static CaptureSummary of(Capture capture) {
    return new CaptureSummary(
        capture.id(),
        capture.name(),
        capture.kind().name().toLowerCase(Locale.ROOT),
        capture.packets(),
        capture.connections().size(),
        capture.connections().stream().mapToLong(NumberedConnection::number).max().orElse(0));
  }
}
