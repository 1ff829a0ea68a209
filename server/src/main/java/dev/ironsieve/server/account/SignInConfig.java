package dev.ironsieve.server.account;

import io.smallrye.config.ConfigMapping;
import java.time.Duration;

/** How sign-in behaves. */
@ConfigMapping(prefix = "iron-sieve.sign-in")
public interface SignInConfig {
  /** Failures in a row after which a name is locked. */
  int failures();

  /** How long a name stays locked. */
  Duration lockedFor();

  /** How long a session lasts. */
  Duration lasts();
}
