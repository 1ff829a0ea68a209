package dev.ironsieve.gateway;

import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Connection.Endpoint;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Zone;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.sets.Address;
import dev.ironsieve.core.sets.AddressRange;
import dev.ironsieve.core.sets.Transport;
import dev.ironsieve.core.signature.Recogniser;
import dev.ironsieve.core.signature.Sight;
import dev.ironsieve.formats.capture.CapturedConnection;
import java.math.BigInteger;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.function.Consumer;

/**
 * Real connections from captured packets. The zone of an end is the one with the smallest network
 * around its address, else one without networks; the site and the application are recognised by the
 * first bytes.
 */
final class CapturedTraffic implements TrafficSource, Consumer<CapturedConnection> {
  private static final int MOST_WAITING = 20_000;
  private static final int PACKET = 900; // bytes, on average
  private static final Duration LENGTH = Duration.ofSeconds(1); // its own is not kept
  private static final String NOWHERE = "unknown";

  private final Recogniser recogniser;
  private final Consumer<String> log;
  private final BlockingQueue<CapturedConnection> waiting = new LinkedBlockingQueue<>(MOST_WAITING);
  private List<Zone> zones = List.of();
  private long dropped;

  /**
   * @param signatures by which applications are recognised
   * @param log takes a sentence for each connection
   */
  CapturedTraffic(List<Recogniser.Named> signatures, Consumer<String> log) {
    recogniser = new Recogniser(signatures);
    this.log = log;
  }

  @Override
  public void accept(CapturedConnection connection) {
    if (!waiting.offer(connection)) {
      dropped++;
      if (Long.bitCount(dropped) == 1) {
        log.accept(dropped + " captured connections dropped: they come faster than decided.");
      }
    }
  }

  @Override
  public void use(Rulebase rulebase) {
    zones = rulebase.zones();
  }

  @Override
  public List<Attempt> due(Instant now) {
    List<CapturedConnection> some = new ArrayList<>();
    waiting.drainTo(some);
    return some.stream().map(one -> attempt(one, now)).toList();
  }

  private Attempt attempt(CapturedConnection captured, Instant now) {
    Map<Coordinate, String> terms = new EnumMap<>(Coordinate.class);
    String site = site(captured.sight());
    if (site != null) {
      terms.put(Coordinate.SITE, site);
    }
    recogniser
        .recognise(captured.sight())
        .ifPresent(found -> terms.put(Coordinate.APPLICATION, found.meant().use()));
    boolean ports = Transport.hasPorts(captured.protocol());
    Connection connection =
        new Connection(
            new Endpoint(zone(captured.from()), captured.from()),
            new Endpoint(zone(captured.to()), captured.to()),
            captured.protocol(),
            ports ? captured.toPort() : 0,
            ports ? captured.fromPort() : Connection.UNKNOWN,
            terms);
    return new Attempt(connection, now, LENGTH, captured.packets() * PACKET);
  }

  /** The host that a connection asks for, or null. */
  private static String site(Sight sight) {
    if (sight.tls() != null && sight.tls().name() != null) {
      return sight.tls().name();
    }
    if (sight.http() != null && sight.http().host() != null) {
      return sight.http().host();
    }
    return null;
  }

  private String zone(Address address) {
    String out = null;
    BigInteger smallest = null;
    for (Zone zone : zones) {
      for (AddressRange network : zone.networks()) {
        if (network.contains(address)
            && (smallest == null || network.size().compareTo(smallest) < 0)) {
          smallest = network.size();
          out = zone.name();
        }
      }
      if (zone.networks().isEmpty() && out == null) {
        out = zone.name();
      }
    }
    return out == null ? NOWHERE : out;
  }

  @Override
  public void decided(Attempt attempt, StagedDecision decision) {
    Connection c = attempt.connection();
    String application = c.terms().getOrDefault(Coordinate.APPLICATION, "unidentified");
    String by =
        decision == null
            ? "drop, since its sender is held"
            : "%s by %s%s"
                .formatted(
                    decision.verdict().word(),
                    decision.rule() == null
                        ? "the default rule"
                        : "\"" + decision.rule().name() + "\"",
                    decision.stage() == null ? "" : ", at the " + decision.stageWord());
    log.accept(
        "%s in %s to %s in %s, %s: %s"
            .formatted(
                c.from().address(),
                c.from().zone(),
                c.to().address(),
                c.to().zone(),
                application,
                by));
  }
}
