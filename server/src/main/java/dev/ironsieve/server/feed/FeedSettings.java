package dev.ironsieve.server.feed;

import dev.ironsieve.server.refusal.Refusal;
import java.net.URI;
import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * The settings of one feed.
 *
 * @param everyMinutes how long after one try the next is, in minutes
 * @param mostBytes how large the file may be
 * @param mostPercent by how many percent the size of an edition may differ from the one before;
 *     beyond that it waits for a person
 * @param url where it is, over HTTP or HTTPS; without it, it is uploaded only
 */
public record FeedSettings(
    @Schema(required = true) Integer everyMinutes,
    @Schema(required = true) Long mostBytes,
    @Schema(required = true) Integer mostPercent,
    String url) {
  private static final int MOST_MINUTES = 60 * 24 * 31;
  private static final long MOST_BYTES = 64L << 20;
  private static final int MOST_PERCENT = 10_000;

  /**
   * Itself, without spaces around the URL.
   *
   * @throws Refusal.Invalid if one of them cannot be
   */
  FeedSettings checked() {
    String url = this.url == null || this.url.isBlank() ? null : this.url.strip();
    if (url != null && !isUrl(url)) {
      throw new Refusal.Invalid("$.settings.url", "http://HOST/... or https://HOST/...", url);
    }
    within("everyMinutes", everyMinutes, 1, MOST_MINUTES);
    within("mostBytes", mostBytes, 1, MOST_BYTES);
    within("mostPercent", mostPercent, 0, MOST_PERCENT);
    return new FeedSettings(everyMinutes, mostBytes, mostPercent, url);
  }

  private static void within(String what, Number value, long least, long most) {
    if (value == null || value.longValue() < least || value.longValue() > most) {
      throw new Refusal.Invalid(
          "$.settings." + what,
          "a whole number from " + least + " to " + most,
          value == null ? "nothing" : value.toString());
    }
  }

  private static boolean isUrl(String text) {
    try {
      URI uri = URI.create(text);
      boolean http = "http".equalsIgnoreCase(uri.getScheme());
      return (http || "https".equalsIgnoreCase(uri.getScheme())) && uri.getHost() != null;
    } catch (IllegalArgumentException e) {
      return false;
    }
  }

  StoredFeed row(long id, String name, String kind) {
    return new StoredFeed(id, name, kind, url, everyMinutes, mostBytes, mostPercent);
  }
}
