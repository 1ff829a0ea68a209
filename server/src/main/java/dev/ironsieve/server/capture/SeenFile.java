package dev.ironsieve.server.capture;

import dev.ironsieve.core.signature.MovedFile;
import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * A file that a connection moves.
 *
 * @param direction {@code upload} or {@code download}
 * @param name left out if unknown
 * @param kind the file kind of the vocabulary
 * @param evidence the reason for the kind
 */
public record SeenFile(
    @Schema(required = true) String direction,
    String name,
    @Schema(required = true) String kind,
    @Schema(required = true) String evidence) {
  static SeenFile of(MovedFile file) {
    return new SeenFile(file.direction().word(), file.name(), file.kind(), file.evidence());
  }
}
