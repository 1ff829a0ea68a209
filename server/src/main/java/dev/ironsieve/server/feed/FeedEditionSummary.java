package dev.ironsieve.server.feed;

import java.util.List;
import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * One edition of a feed.
 *
 * @param by who brought it; nothing if it was the schedule
 * @param entries how many lines are entries
 * @param bad how many lines could not be read
 * @param reasons why it waits, or waited, for a person
 * @param decidedBy who let it through or refused it
 */
public record FeedEditionSummary(
    @Schema(required = true) String name,
    @Schema(required = true) String at,
    String by,
    @Schema(required = true) int entries,
    @Schema(required = true) int bad,
    @Schema(required = true) List<String> reasons,
    @Schema(
            required = true,
            enumeration = {"offered", "held", "refused"})
        String state,
    String decidedBy) {
  static FeedEditionSummary of(StoredFeed row, StoredFeedEdition report) {
    return new FeedEditionSummary(
        FeedEditions.edition(row, report),
        report.at().toString(),
        report.by(),
        report.entries(),
        report.bad(),
        List.of(report.reasons()),
        report.state(),
        report.decidedBy());
  }
}
