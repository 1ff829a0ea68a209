package dev.ironsieve.server.feed;

import io.smallrye.config.ConfigMapping;
import io.smallrye.config.WithDefault;
import java.time.Duration;

/** How feeds are fetched. */
@ConfigMapping(prefix = "iron-sieve.feeds")
public interface FeedConfig {
  /** How long after one look for feeds that are due the next is. */
  Duration check();

  /** How long fetching one may take. */
  @WithDefault("60s")
  Duration longest();
}
