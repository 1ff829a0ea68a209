package dev.ironsieve.server.capture;

import dev.ironsieve.formats.capture.CapturedConnection;
import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * A connection of a sample that a signature would take away from its own application.
 *
 * @param sample what the capture is called
 * @param application what the connection is
 */
public record Mistake(
    @Schema(required = true) String sample,
    @Schema(required = true) String from,
    @Schema(required = true) String to,
    @Schema(required = true) String service,
    @Schema(required = true) String application) {
  static Mistake of(Capture sample, CapturedConnection taken, String application) {
    return new Mistake(
        sample.name(),
        taken.from().toString(),
        taken.to().toString(),
        taken.service().toString(),
        application);
  }
}
