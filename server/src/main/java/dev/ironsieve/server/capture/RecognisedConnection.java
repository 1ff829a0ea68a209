package dev.ironsieve.server.capture;

import dev.ironsieve.core.signature.MovedFile;
import dev.ironsieve.core.signature.Recognised;
import dev.ironsieve.core.signature.Recogniser;
import dev.ironsieve.formats.capture.CapturedConnection;
import java.time.Instant;
import java.util.Arrays;
import java.util.HexFormat;
import java.util.List;
import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * A connection with its application, as far as it is recognised.
 *
 * @param number tells it from the others
 * @param at when it was heard of; nothing in a capture
 * @param application as rules name it; nothing if it is not recognised
 * @param evidence what of the connection decided
 * @param others what wider signatures take it for
 * @param files what it moves, as far as that is seen
 * @param client its first bytes, hexadecimal
 * @param server the first bytes of the other side
 */
public record RecognisedConnection(
    @Schema(required = true) long number,
    Instant at,
    @Schema(required = true) String from,
    @Schema(required = true) String to,
    @Schema(required = true) String service,
    @Schema(required = true) long packets,
    String application,
    @Schema(required = true) List<String> evidence,
    @Schema(required = true) List<String> others,
    @Schema(required = true) List<SeenFile> files,
    @Schema(required = true) String client,
    @Schema(required = true) String server) {
  private static final int SHOWN_BYTES = 96;

  static RecognisedConnection of(NumberedConnection seen, Recogniser recogniser) {
    CapturedConnection c = seen.connection();
    Recognised found = recogniser.recognise(c.sight()).orElse(null);
    return new RecognisedConnection(
        seen.number(),
        seen.at(),
        c.from().toString(),
        c.to().toString(),
        c.service().toString(),
        c.packets(),
        found == null ? null : found.meant().use(),
        found == null ? List.of() : found.evidence(),
        found == null
            ? List.of()
            : found.others().stream().map(Recogniser.Named::use).distinct().toList(),
        MovedFile.in(c.sight()).stream().map(SeenFile::of).toList(),
        hex(c.sight().client()),
        hex(c.sight().server()));
  }

  private static String hex(byte[] bytes) {
    int length = Math.min(bytes.length, SHOWN_BYTES);
    return HexFormat.ofDelimiter(" ").formatHex(Arrays.copyOf(bytes, length));
  }
}
