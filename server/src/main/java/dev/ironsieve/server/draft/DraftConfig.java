package dev.ironsieve.server.draft;

import io.smallrye.config.ConfigMapping;
import io.smallrye.config.WithDefault;
import java.time.Duration;

/** How drafts are kept in memory and stored. */
@ConfigMapping(prefix = "iron-sieve.drafts")
public interface DraftConfig {
  /** Most memory that open drafts may take, as a share of the heap, in percent. */
  @WithDefault("40")
  int memoryPercent();

  /** Most rules of one rulebase; the default fits into a heap of 1 GB. */
  @WithDefault("30000")
  int mostRules();

  /** How long a draft that nobody asks for stays in memory. */
  @WithDefault("30m")
  Duration idle();

  /** After how many changes the state of a draft is stored. */
  @WithDefault("200")
  int snapshotEvery();

  /** How long opening a draft may take, and how long an edit waits for the one before it. */
  @WithDefault("60s")
  Duration deadline();
}
