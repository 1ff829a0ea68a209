package dev.ironsieve.server.revision;

import java.time.Instant;

/**
 * The row of a revision, without its content.
 *
 * @param digest SHA-256 of the content
 * @param by who published it; null for the first one of the demo
 * @param approvedBy who approved it; null if no approval was needed
 * @param overrideReason why it was published in spite of blockers; null if there were none
 */
record StoredRevision(
    int number,
    byte[] digest,
    Instant at,
    String by,
    String approvedBy,
    String note,
    String overrideReason) {}
