package dev.ironsieve.server.demo;

import dev.ironsieve.core.sets.Address;
import dev.ironsieve.core.sets.Family;
import dev.ironsieve.formats.capture.CapturedConnection;
import dev.ironsieve.formats.capture.Captures;
import dev.ironsieve.server.capture.CaptureMemory;
import dev.ironsieve.server.capture.RecentLog;
import io.quarkus.scheduler.Scheduled;
import jakarta.enterprise.context.ApplicationScoped;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;

/** The demo's tap: connections like those of the sample, from other addresses, all day long. */
@ApplicationScoped
public class DemoTap {
  private static final int AT_FIRST = 120;
  private static final int FIRST_PORT = 49152; // of those that clients use

  private final RecentLog recent;
  private final Random random = new Random(11);
  private final List<CapturedConnection> sample = new ArrayList<>();

  DemoTap(RecentLog recent) {
    this.recent = recent;
  }

  synchronized void start() {
    try {
      byte[] capture = CaptureMemory.sample("harbour");
      Captures.read("harbour", new ByteArrayInputStream(capture), sample::add);
    } catch (IOException e) {
      throw new UncheckedIOException("the demo's tap", e);
    }
    for (int i = 0; i < AT_FIRST; i++) {
      hear();
    }
  }

  @Scheduled(every = "{iron-sieve.demo.tap}", delayed = "{iron-sieve.demo.tap}")
  synchronized void hear() {
    if (sample.isEmpty()) {
      return;
    }
    CapturedConnection like = sample.get(random.nextInt(sample.size()));
    recent.add(
        new CapturedConnection(
            neighbour(like.from()),
            FIRST_PORT + random.nextInt(65536 - FIRST_PORT),
            like.to(),
            like.toPort(),
            like.protocol(),
            like.packets(),
            like.sight()));
  }

  /** Another address of the same 256. */
  private Address neighbour(Address address) {
    return address.family() == Family.IPV4
        ? new Address(Family.IPV4, 0, (address.low() & ~0xffL) | 2 + random.nextInt(250))
        : address;
  }
}
