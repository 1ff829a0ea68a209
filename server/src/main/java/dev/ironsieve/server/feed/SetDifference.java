package dev.ironsieve.server.feed;

import dev.ironsieve.core.edition.FeedChange;
import java.util.List;
import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * The entries that one set of a feed gained and lost.
 *
 * @param gained the first {@value #MOST_TOLD} of those that are new
 * @param lost the first {@value #MOST_TOLD} of those that are gone
 */
public record SetDifference(
    @Schema(required = true) String set,
    @Schema(required = true) int gainedCount,
    @Schema(required = true) List<String> gained,
    @Schema(required = true) int lostCount,
    @Schema(required = true) List<String> lost) {
  private static final int MOST_TOLD = 200;

  static SetDifference of(FeedChange.SetChange change) {
    return new SetDifference(
        change.set(),
        change.gained().size(),
        change.gained().stream().limit(MOST_TOLD).toList(),
        change.lost().size(),
        change.lost().stream().limit(MOST_TOLD).toList());
  }
}
