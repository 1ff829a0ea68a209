package dev.ironsieve.server.account;

import io.smallrye.config.ConfigMapping;
import io.smallrye.config.WithDefault;
import java.time.Duration;
import java.util.OptionalInt;

/** Settings of sign-in. */
@ConfigMapping(prefix = "iron-sieve.sign-in")
public interface SignInConfig {
  /** Failures in a row after which a name is locked. */
  int failures();

  /** The time for which a name stays locked. */
  Duration lockedFor();

  /** The lifetime of a session. */
  Duration lasts();

  /** Most tries to sign in from one address in a minute. */
  @WithDefault("30")
  int triesPerAddress();

  /** Threads that compare passwords; half of the processors if left out, at least one. */
  OptionalInt hashingThreads();

  /** Most passwords that wait to be compared. */
  @WithDefault("16")
  int hashingQueue();
}
