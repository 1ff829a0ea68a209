package dev.ironsieve.server.draft;

import io.smallrye.config.ConfigMapping;
import io.smallrye.config.WithDefault;
import java.time.Duration;

/** Settings of drafts: their memory, their snapshots and their largest size. */
@ConfigMapping(prefix = "iron-sieve.drafts")
public interface DraftConfig {
  /** Most memory that open drafts may take, as a share of the heap, in percent. */
  @WithDefault("40")
  int memoryPercent();

  /** Most rules of one rulebase; the default fits into a heap of 1 GB. */
  @WithDefault("20000")
  int mostRules();

  /** The time after which an unused draft leaves memory. */
  @WithDefault("30m")
  Duration idle();

  /** After how many changes the state of a draft is stored. */
  @WithDefault("200")
  int snapshotEvery();

  /** The time limit of opening a draft, and of waiting for the edit before. */
  @WithDefault("60s")
  Duration deadline();
}
