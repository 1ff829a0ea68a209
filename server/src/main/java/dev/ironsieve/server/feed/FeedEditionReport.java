package dev.ironsieve.server.feed;

import dev.ironsieve.core.edition.FeedChange;
import dev.ironsieve.core.model.Feed;
import dev.ironsieve.formats.feed.ReadFeed;
import java.util.List;
import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * The contents of an edition, and its differences from the edition before.
 *
 * @param before the edition that it is compared with: the one offered before; nothing for the first
 */
public record FeedEditionReport(
    @Schema(required = true) List<FeedSetSummary> sets,
    @Schema(required = true) List<ReadFeed.Fault> faults,
    String before,
    @Schema(required = true) List<SetDifference> changes) {
  static FeedEditionReport of(FeedEditions.Edition edition) {
    Feed before = edition.before();
    return new FeedEditionReport(
        edition.feed().sets().stream()
            .map(set -> new FeedSetSummary(set.name(), set.size()))
            .toList(),
        edition.faults(),
        before == null ? null : before.edition(),
        before == null
            ? List.of()
            : FeedChange.sets(before, edition.feed()).stream().map(SetDifference::of).toList());
  }
}
