package dev.ironsieve.server.feed;

import java.util.List;
import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * One feed in the list.
 *
 * @param triedAt when it was last tried, ISO 8601
 * @param readAt when it was last read without failure
 * @param fault what went wrong if the last try failed
 * @param editions the newest 20, newest first
 */
public record FeedSummary(
    @Schema(required = true) String name,
    @Schema(
            required = true,
            enumeration = {"addresses", "countries", "categories"})
        String kind,
    @Schema(required = true) FeedSettings settings,
    String triedAt,
    String readAt,
    String fault,
    @Schema(required = true) List<FeedEditionSummary> editions) {
  static FeedSummary of(Feeds.FeedStatus known) {
    StoredFeed row = known.feed();
    return new FeedSummary(
        row.name(),
        row.kind(),
        new FeedSettings(row.everyMinutes(), row.mostBytes(), row.mostPercent(), row.url()),
        known.tried().map(reading -> reading.at().toString()).orElse(null),
        known.read().map(reading -> reading.at().toString()).orElse(null),
        known.tried().map(FeedReading::fault).orElse(null),
        known.reports().stream().map(report -> FeedEditionSummary.of(row, report)).toList());
  }
}
