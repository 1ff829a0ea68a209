package dev.ironsieve.server.log;

import dev.ironsieve.core.sets.InvalidText;
import dev.ironsieve.formats.syslog.DecisionRecord;
import dev.ironsieve.formats.syslog.HitRecord;
import dev.ironsieve.formats.syslog.SyslogFrames;
import dev.ironsieve.formats.syslog.SyslogMessage;
import dev.ironsieve.formats.syslog.SyslogReader;
import dev.ironsieve.server.log.LogSenders.Kind;
import io.quarkus.runtime.StartupEvent;
import jakarta.annotation.PreDestroy;
import jakarta.enterprise.context.ApplicationScoped;
import jakarta.enterprise.event.Observes;
import java.io.Closeable;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.net.DatagramPacket;
import java.net.DatagramSocket;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Instant;
import java.util.Arrays;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.Semaphore;
import javax.net.ssl.SSLContext;
import javax.net.ssl.SSLSocket;
import org.jboss.logging.Logger;

/**
 * Receives syslog over TCP (RFC 6587), TLS (RFC 5425) and UDP (RFC 5426). While too many records
 * wait to be stored, TCP senders are not read, so they wait too; over UDP records are dropped and
 * counted.
 */
@ApplicationScoped
public class SyslogListener {
  private static final Logger LOG = Logger.getLogger(SyslogListener.class);
  private static final int MOST_CONNECTIONS = 1_000;
  private static final int BUFFER = 1 << 16;
  private static final int HANDSHAKE_MILLIS = 10_000;

  private final LogConfig config;
  private final LogQueue queue;
  private final LogSenders senders;
  private final Set<Closeable> open = ConcurrentHashMap.newKeySet();
  private final Semaphore places = new Semaphore(MOST_CONNECTIONS);

  SyslogListener(LogConfig config, LogQueue queue, LogSenders senders) {
    this.config = config;
    this.queue = queue;
    this.senders = senders;
  }

  void onStart(@Observes StartupEvent event) {
    config.tcpPort().ifPresent(port -> listenTcp(new InetSocketAddress(config.host(), port)));
    config.tlsPort().ifPresent(port -> listenTls(new InetSocketAddress(config.host(), port)));
    config.udpPort().ifPresent(port -> listenUdp(new InetSocketAddress(config.host(), port)));
  }

  /** Listens there too from now on; returns the port. */
  public int listenTcp(InetSocketAddress at) {
    try {
      return listen(new ServerSocket(), at);
    } catch (IOException e) {
      throw new UncheckedIOException("syslog over TCP at " + at, e);
    }
  }

  private void listenTls(InetSocketAddress at) {
    try {
      listenTls(
          at,
          config.tlsCertificate().orElseThrow(() -> missing("certificate")),
          config.tlsKey().orElseThrow(() -> missing("key")));
    } catch (IOException e) {
      throw new UncheckedIOException("syslog over TLS at " + at, e);
    }
  }

  private static IOException missing(String what) {
    return new IOException("no " + what + " is set for syslog over TLS");
  }

  /**
   * Listens there too from now on; returns the port.
   *
   * @param certificate PEM file with the certificate
   * @param key PEM file with its key
   */
  public int listenTls(InetSocketAddress at, Path certificate, Path key) throws IOException {
    SSLContext identity = TlsIdentity.of(certificate, key);
    return listen(identity.getServerSocketFactory().createServerSocket(), at);
  }

  private int listen(ServerSocket server, InetSocketAddress at) throws IOException {
    server.setReuseAddress(true);
    server.bind(at);
    open.add(server);
    Thread.ofVirtual().name("syslog-tcp").start(() -> accept(server));
    return server.getLocalPort();
  }

  /** Listens there too from now on; returns the port. */
  public int listenUdp(InetSocketAddress at) {
    try {
      DatagramSocket socket = new DatagramSocket(at);
      open.add(socket);
      Thread.ofVirtual().name("syslog-udp").start(() -> receive(socket));
      return socket.getLocalPort();
    } catch (IOException e) {
      throw new UncheckedIOException("syslog over UDP at " + at, e);
    }
  }

  private void accept(ServerSocket server) {
    while (!server.isClosed()) {
      try {
        Socket socket = server.accept();
        if (!places.tryAcquire()) {
          senders.count(socket.getInetAddress(), Kind.OVERFLOW, "Too many connections.");
          socket.close();
          continue;
        }
        open.add(socket);
        Thread.ofVirtual().name("syslog").start(() -> read(socket));
      } catch (IOException e) {
        if (!server.isClosed()) {
          LOG.warnf("Syslog over TCP: %s", e.getMessage());
        }
      }
    }
  }

  private void read(Socket socket) {
    InetAddress sender = socket.getInetAddress();
    try (socket) {
      shakeHands(socket);
      InputStream in = socket.getInputStream();
      SyslogFrames frames =
          new SyslogFrames(
              text -> take(text, sender, true),
              fault -> senders.count(sender, Kind.MALFORMED, fault));
      byte[] bytes = new byte[BUFFER];
      for (int count = in.read(bytes); count >= 0; count = in.read(bytes)) {
        frames.add(Arrays.copyOf(bytes, count));
      }
    } catch (IOException e) {
      LOG.debugf("Syslog from %s: %s", sender, e.getMessage());
    } finally {
      open.remove(socket);
      places.release();
    }
  }

  /** Agrees on keys, where the connection is one of TLS. */
  private static void shakeHands(Socket socket) throws IOException {
    if (socket instanceof SSLSocket tls) {
      tls.setSoTimeout(HANDSHAKE_MILLIS);
      tls.startHandshake();
      tls.setSoTimeout(0);
    }
  }

  private void receive(DatagramSocket socket) {
    DatagramPacket packet = new DatagramPacket(new byte[BUFFER], BUFFER);
    while (!socket.isClosed()) {
      try {
        packet.setLength(BUFFER);
        socket.receive(packet);
        if (packet.getLength() > SyslogMessage.MAX_BYTES) {
          senders.count(
              packet.getAddress(),
              Kind.MALFORMED,
              "A message of %d bytes is longer than %d."
                  .formatted(packet.getLength(), SyslogMessage.MAX_BYTES));
          continue;
        }
        String text = new String(packet.getData(), 0, packet.getLength(), StandardCharsets.UTF_8);
        take(text, packet.getAddress(), false);
      } catch (IOException e) {
        if (!socket.isClosed()) {
          LOG.warnf("Syslog over UDP: %s", e.getMessage());
        }
      }
    }
  }

  private void take(String text, InetAddress sender, boolean waits) {
    try {
      SyslogMessage message = SyslogReader.read(text);
      LogEntry entry =
          new LogEntry(
              sender,
              Instant.now(),
              message.at(),
              DecisionRecord.of(message).orElse(null),
              HitRecord.of(message).orElse(null));
      if (entry.decision() == null && entry.hits() == null) {
        senders.count(sender, Kind.OTHER, null);
      } else if (queue.take(entry, waits)) {
        senders.count(sender, Kind.RECORD, null);
      } else {
        senders.count(sender, Kind.OVERFLOW, "Too many records wait to be stored.");
      }
    } catch (InvalidText e) {
      String fault =
          "At character %d: expected %s, found %s."
              .formatted(e.offset() + 1, e.expected(), e.found());
      senders.count(sender, Kind.MALFORMED, fault);
    }
  }

  @PreDestroy
  void close() throws IOException {
    for (Closeable one : open) {
      one.close();
    }
  }
}
