package dev.ironsieve.server.feed;

import io.smallrye.config.ConfigMapping;
import io.smallrye.config.WithDefault;
import java.time.Duration;

/** Settings of fetching feeds. */
@ConfigMapping(prefix = "iron-sieve.feeds")
public interface FeedConfig {
  /** The time between two looks for feeds that are due. */
  Duration check();

  /** The time limit of fetching one feed. */
  @WithDefault("60s")
  Duration longest();
}
