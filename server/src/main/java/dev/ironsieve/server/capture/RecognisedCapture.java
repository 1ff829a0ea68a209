package dev.ironsieve.server.capture;

import java.util.List;
import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * A capture with the application of each connection.
 *
 * @param remarks what of it could not be read
 * @param connections the first {@value #MOST_ROWS}, or the newest {@value #MOST_RECENT} of the
 *     recent log
 */
public record RecognisedCapture(
    @Schema(required = true) long id,
    @Schema(required = true) String name,
    @Schema(required = true) List<String> remarks,
    @Schema(required = true) List<RecognisedConnection> connections) {
  static final int MOST_ROWS = 5000;
  static final int MOST_RECENT = 2000;
}
