package dev.ironsieve.server.draft;

import dev.ironsieve.core.model.Feed;
import java.util.List;
import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * A feed that a draft has an edition of.
 *
 * @param sets whose names rules can say
 */
public record PinnedFeed(
    @Schema(required = true) String name,
    @Schema(
            required = true,
            enumeration = {"addresses", "countries", "categories"})
        String kind,
    @Schema(required = true) String edition,
    @Schema(required = true) List<PinnedSet> sets) {
  private static final int SHOWN = 6;

  /**
   * One set.
   *
   * @param entries how many ranges or hosts it has
   * @param some the first few of these
   */
  public record PinnedSet(
      @Schema(required = true) String name,
      @Schema(required = true) int entries,
      @Schema(required = true) List<String> some) {}

  static PinnedFeed of(Feed feed) {
    return new PinnedFeed(
        feed.name(),
        feed.kind().word(),
        feed.edition(),
        feed.sets().stream()
            .map(
                set ->
                    new PinnedSet(
                        set.name(), set.size(), set.members().stream().limit(SHOWN).toList()))
            .toList());
  }
}
