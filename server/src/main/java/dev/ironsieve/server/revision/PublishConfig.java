package dev.ironsieve.server.revision;

import dev.ironsieve.core.analysis.Finding;
import io.smallrye.config.ConfigMapping;
import io.smallrye.config.WithDefault;

/** Settings of publishing. */
@ConfigMapping(prefix = "iron-sieve.publish")
public interface PublishConfig {
  /** New findings of this severity or a higher one stop a publish. */
  @WithDefault("error")
  Finding.Severity blockingSeverity();
}
