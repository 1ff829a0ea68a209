package dev.ironsieve.server.log;

import io.smallrye.config.ConfigMapping;
import io.smallrye.config.WithDefault;
import java.nio.file.Path;
import java.time.Duration;
import java.util.Optional;
import java.util.OptionalInt;

/** Settings of the log. */
@ConfigMapping(prefix = "iron-sieve.log")
public interface LogConfig {
  /** TCP port for syslog (RFC 6587); 0 for any free one; without it nothing listens. */
  OptionalInt tcpPort();

  /** UDP port for syslog (RFC 5426), likewise. */
  OptionalInt udpPort();

  /** TCP port for syslog over TLS (RFC 5425), likewise; needs a certificate and its key. */
  OptionalInt tlsPort();

  /** UDP port for IPFIX (RFC 7011), likewise. */
  OptionalInt ipfixPort();

  /** PEM file with the certificate for TLS, and those that signed it. */
  Optional<Path> tlsCertificate();

  /** PEM file with the private key of the certificate (PKCS #8, RFC 5958), not encrypted. */
  Optional<Path> tlsKey();

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
