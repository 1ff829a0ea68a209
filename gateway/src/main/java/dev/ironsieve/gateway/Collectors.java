package dev.ironsieve.gateway;

import java.io.IOException;
import java.io.InputStream;
import java.net.URI;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.GeneralSecurityException;
import java.security.KeyStore;
import java.security.cert.Certificate;
import java.security.cert.CertificateFactory;
import javax.net.SocketFactory;
import javax.net.ssl.SSLContext;
import javax.net.ssl.TrustManagerFactory;

/** How a gateway reaches a collector of its log records. */
final class Collectors {
  private Collectors() {}

  /**
   * Checks the address of a collector.
   *
   * @throws IllegalArgumentException if it is none of the schemes with a host and a port
   */
  static URI checked(URI collector) {
    boolean known =
        collector.getScheme() != null
            && switch (collector.getScheme()) {
              case "tcp", "tls", "udp" -> true;
              default -> false;
            };
    if (!known || collector.getHost() == null || collector.getPort() < 0) {
      throw new IllegalArgumentException(
          "expected tcp://host:port, tls://host:port or udp://host:port, found " + collector);
    }
    return collector;
  }

  /**
   * Sockets of TLS that trust the certificates of a PEM file only.
   *
   * @param trusted null for those that the Java runtime trusts
   */
  static SocketFactory tls(Path trusted) throws IOException {
    try {
      TrustManagerFactory trust =
          TrustManagerFactory.getInstance(TrustManagerFactory.getDefaultAlgorithm());
      trust.init(trusted == null ? null : store(trusted));
      SSLContext context = SSLContext.getInstance("TLS");
      context.init(null, trust.getTrustManagers(), null);
      return context.getSocketFactory();
    } catch (GeneralSecurityException e) {
      throw new IOException(
          "expected certificates in %s: %s".formatted(trusted, e.getMessage()), e);
    }
  }

  private static KeyStore store(Path file) throws IOException, GeneralSecurityException {
    KeyStore store = KeyStore.getInstance(KeyStore.getDefaultType());
    store.load(null, null);
    try (InputStream in = Files.newInputStream(file)) {
      int number = 0;
      for (Certificate one : CertificateFactory.getInstance("X.509").generateCertificates(in)) {
        number++;
        store.setCertificateEntry("trusted " + number, one);
      }
      if (number == 0) {
        throw new IOException("expected a certificate in " + file + ", found none");
      }
    }
    return store;
  }
}
