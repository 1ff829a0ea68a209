package dev.ironsieve.server.presence;

import io.smallrye.config.ConfigMapping;
import io.smallrye.config.WithDefault;
import java.util.Optional;
import java.util.OptionalInt;

/** Where network gear tells sign-ins to. */
@ConfigMapping(prefix = "iron-sieve.radius")
public interface RadiusConfig {
  /** UDP port to listen on, 1813 by custom; without it nothing listens. */
  OptionalInt port();

  @WithDefault("127.0.0.1")
  String host();

  /** What senders and this server share (RFC 2866, section 3). */
  Optional<String> secret();
}
