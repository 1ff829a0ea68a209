package dev.ironsieve.server.log;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import dev.ironsieve.core.sets.InvalidText;
import dev.ironsieve.formats.ipfix.IpfixMessage;
import dev.ironsieve.formats.ipfix.IpfixReader;
import dev.ironsieve.server.log.LogSenders.Kind;
import io.quarkus.runtime.StartupEvent;
import jakarta.annotation.PreDestroy;
import jakarta.enterprise.context.ApplicationScoped;
import jakarta.enterprise.event.Observes;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.DatagramPacket;
import java.net.DatagramSocket;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.SocketAddress;
import java.util.Arrays;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import org.jboss.logging.Logger;

/**
 * Receives IPFIX over UDP (RFC 7011, section 10.3), from gateways and from any other exporter, and
 * counts the flows of each. They are not stored: a flow has neither zones nor the rule that
 * decided, which the records by syslog have.
 */
@ApplicationScoped
public class IpfixListener {
  private static final Logger LOG = Logger.getLogger(IpfixListener.class);
  private static final int BUFFER = 1 << 16;
  private static final int MOST_SESSIONS = 1_000;

  private final LogConfig config;
  private final LogSenders senders;
  private final Set<DatagramSocket> open = ConcurrentHashMap.newKeySet();

  /** By address and port of the exporter. */
  private final Cache<SocketAddress, IpfixReader> sessions =
      Caffeine.newBuilder().maximumSize(MOST_SESSIONS).build();

  IpfixListener(LogConfig config, LogSenders senders) {
    this.config = config;
    this.senders = senders;
  }

  void onStart(@Observes StartupEvent event) {
    config.ipfixPort().ifPresent(port -> listen(new InetSocketAddress(config.host(), port)));
  }

  /** Listens there too from now on; returns the port. */
  public int listen(InetSocketAddress at) {
    try {
      DatagramSocket socket = new DatagramSocket(at);
      open.add(socket);
      Thread.ofVirtual().name("ipfix").start(() -> receive(socket));
      return socket.getLocalPort();
    } catch (IOException e) {
      throw new UncheckedIOException("IPFIX over UDP at " + at, e);
    }
  }

  private void receive(DatagramSocket socket) {
    DatagramPacket packet = new DatagramPacket(new byte[BUFFER], BUFFER);
    while (!socket.isClosed()) {
      try {
        packet.setLength(BUFFER);
        socket.receive(packet);
        byte[] message = Arrays.copyOf(packet.getData(), packet.getLength());
        take(message, packet.getSocketAddress(), packet.getAddress());
      } catch (IOException e) {
        if (!socket.isClosed()) {
          LOG.warnf("IPFIX over UDP: %s", e.getMessage());
        }
      }
    }
  }

  private void take(byte[] message, SocketAddress exporter, InetAddress sender) {
    IpfixReader reader = sessions.get(exporter, any -> new IpfixReader());
    try {
      IpfixMessage read;
      synchronized (reader) {
        read = reader.read(message);
      }
      senders.count(sender, Kind.FLOW, read.flows().size());
      senders.count(sender, Kind.FLOW_LOST, read.lost());
      if (read.unread() > 0) {
        String fault = "IPFIX: data records arrived before their template.";
        senders.count(sender, Kind.UNREAD_FLOWS, fault);
      }
    } catch (InvalidText e) {
      senders.count(
          sender,
          Kind.MALFORMED,
          "IPFIX, at byte %d: expected %s, found %s."
              .formatted(e.offset() + 1, e.expected(), e.found()));
    }
  }

  @PreDestroy
  void close() {
    open.forEach(DatagramSocket::close);
  }
}
