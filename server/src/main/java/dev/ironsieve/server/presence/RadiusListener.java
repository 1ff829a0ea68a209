package dev.ironsieve.server.presence;

import dev.ironsieve.core.model.DeviceState;
import dev.ironsieve.core.sets.Address;
import dev.ironsieve.formats.InvalidDocument;
import dev.ironsieve.formats.radius.Accounting;
import io.quarkus.runtime.StartupEvent;
import jakarta.annotation.PreDestroy;
import jakarta.enterprise.context.ApplicationScoped;
import jakarta.enterprise.event.Observes;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.DatagramPacket;
import java.net.DatagramSocket;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.Arrays;
import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.atomic.AtomicLong;
import org.jboss.logging.Logger;

/** Receives RADIUS accounting requests (RFC 2866) and records who is signed in at which address. */
@ApplicationScoped
public class RadiusListener {
  private static final Logger LOG = Logger.getLogger(RadiusListener.class);
  private static final long LOGGED_EACH = 100; // of the refused, so that a flood fills no disk

  private final SignIns signIns;
  private final RadiusConfig config;
  private final AtomicLong refused = new AtomicLong();
  private final List<DatagramSocket> sockets = new CopyOnWriteArrayList<>();

  RadiusListener(SignIns signIns, RadiusConfig config) {
    this.signIns = signIns;
    this.config = config;
  }

  void onStart(@Observes StartupEvent event) {
    if (config.port().isPresent()) {
      String secret =
          config
              .secret()
              .orElseThrow(
                  () -> new IllegalStateException("iron-sieve.radius.secret: expected one"));
      listen(new InetSocketAddress(config.host(), config.port().getAsInt()), secret);
    }
  }

  /** Listens there too from now on; returns the port. */
  public int listen(InetSocketAddress at, String secret) {
    try {
      DatagramSocket open = new DatagramSocket(at);
      sockets.add(open);
      byte[] key = secret.getBytes(StandardCharsets.UTF_8);
      Thread.ofVirtual().name("radius").start(() -> take(open, key));
      return open.getLocalPort();
    } catch (IOException e) {
      throw new UncheckedIOException("RADIUS accounting at " + at, e);
    }
  }

  private void take(DatagramSocket open, byte[] secret) {
    DatagramPacket packet =
        new DatagramPacket(new byte[Accounting.MAX_BYTES], Accounting.MAX_BYTES);
    while (!open.isClosed()) {
      try {
        packet.setLength(Accounting.MAX_BYTES);
        open.receive(packet);
        Accounting said =
            Accounting.read(Arrays.copyOf(packet.getData(), packet.getLength()), secret);
        note(said);
        byte[] answer = said.answer();
        open.send(new DatagramPacket(answer, answer.length, packet.getSocketAddress()));
      } catch (InvalidDocument e) {
        // Not answered, as the standard asks for: the sender tries again or gives up.
        if (refused.getAndIncrement() % LOGGED_EACH == 0) {
          LOG.warnf("RADIUS from %s refused: %s", packet.getSocketAddress(), e.getMessage());
        }
      } catch (IOException e) {
        if (!open.isClosed()) {
          LOG.warnf("RADIUS: %s", e.getMessage());
        }
      }
    }
  }

  /** Facts of a device that are not understood are ignored; the sign-in counts. */
  private DeviceState device(Accounting said) {
    boolean reads = said.device() != null && DeviceState.isOne(said.device());
    if (said.device() != null && !reads && refused.getAndIncrement() % LOGGED_EACH == 0) {
      LOG.warnf("RADIUS: not read as a device's state: %s", said.device());
    }
    return reads ? DeviceState.parse(said.device()) : null;
  }

  private void note(Accounting said) {
    Address address = said.address();
    if (address == null) {
      return;
    }
    String session = said.session() == null ? "" : said.session();
    switch (said.status()) {
      case START, INTERIM -> {
        if (said.user() != null) {
          signIns.in(said.user(), address, device(said), Instant.now(), session);
        }
      }
      case STOP -> signIns.out(address, session);
      case OTHER -> {}
    }
  }

  @PreDestroy
  void close() {
    sockets.forEach(DatagramSocket::close);
  }
}
