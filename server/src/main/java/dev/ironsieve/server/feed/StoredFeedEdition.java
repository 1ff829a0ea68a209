package dev.ironsieve.server.feed;

import java.time.Instant;

/**
 * The row of an edition of a feed.
 *
 * @param name of the edition, the feed's name before it
 * @param by who uploaded it or asked for it; null for the schedule
 * @param change by how much it differs in size from the one before, as a share
 * @param reasons why it waits or waited for a person, in sentences
 * @param state {@code offered}, {@code held} or {@code refused}
 * @param decidedBy who let it through or refused it, or null
 */
record StoredFeedEdition(
    long edition,
    String name,
    Instant at,
    String by,
    int entries,
    int bad,
    String faults,
    double change,
    String[] reasons,
    String state,
    String decidedBy) {
  /** Whether drafts may adopt it. */
  boolean isOffered() {
    return state.equals("offered");
  }
}
