package dev.ironsieve.server.log;

import io.smallrye.config.ConfigMapping;
import io.smallrye.config.WithDefault;
import java.time.Duration;
import java.util.OptionalInt;

/** Settings of the log. */
@ConfigMapping(prefix = "iron-sieve.log")
public interface LogConfig {
  /** TCP port for syslog (RFC 6587); 0 for any free one; without it nothing listens. */
  OptionalInt tcpPort();

  /** UDP port for syslog (RFC 5426), likewise. */
  OptionalInt udpPort();

  @WithDefault("127.0.0.1")
  String host();

  /** Most records that wait to be stored; then TCP senders wait, and UDP records are dropped. */
  @WithDefault("100000")
  int queue();

  /** Most records that are stored in one transaction. */
  @WithDefault("5000")
  int batch();

  /** For how long records are kept; by the day. */
  @WithDefault("35D")
  Duration keep();
}
