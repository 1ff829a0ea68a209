package dev.ironsieve.server.presence;

import io.smallrye.config.ConfigMapping;
import io.smallrye.config.WithDefault;
import java.util.Optional;
import java.util.OptionalInt;

/** Settings of the RADIUS listener. */
@ConfigMapping(prefix = "iron-sieve.radius")
public interface RadiusConfig {
  /** UDP port to listen on, 1813 by custom; without it nothing listens. */
  OptionalInt port();

  @WithDefault("127.0.0.1")
  String host();

  /** The secret that senders and this server share (RFC 2866, section 3). */
  Optional<String> secret();
}
