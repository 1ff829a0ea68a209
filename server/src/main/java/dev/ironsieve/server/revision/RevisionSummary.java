package dev.ironsieve.server.revision;

import java.util.HexFormat;
import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * A revision in the list.
 *
 * @param digest SHA-256 of its document, hexadecimal
 * @param at when it was published, ISO 8601
 * @param by who published it; nothing for the first one of the demo
 * @param approvedBy who approved it; left out if no approval was needed
 * @param overrideReason why it was published in spite of blockers; nothing if there were none
 */
public record RevisionSummary(
    @Schema(required = true) int number,
    @Schema(required = true) String digest,
    @Schema(required = true) String at,
    String by,
    String approvedBy,
    @Schema(required = true) String note,
    String overrideReason) {
  static RevisionSummary of(StoredRevision row) {
    return new RevisionSummary(
        row.number(),
        HexFormat.of().formatHex(row.digest()),
        row.at().toString(),
        row.by(),
        row.approvedBy(),
        row.note(),
        row.overrideReason());
  }
}
