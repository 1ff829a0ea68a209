package dev.ironsieve.bench;

import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.gateway.DecisionSpeed;
import java.time.Duration;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.stream.Stream;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;

/** How many connections a gateway decides a second on one thread. */
@Command(
    name = "decisions",
    mixinStandardHelpOptions = true,
    description = {
      "Lets a gateway decide connections on one thread, by easy and by hard rules, and compares",
      "the rules one after the other as the peer."
    })
final class GatewayDecisions implements Runnable {
  private static final int CONNECTIONS = 20_000; // of which each is decided many times
  private static final double NANOS_PER_SECOND = 1e9;
  private static final int FEW = 100; // connections of the peer between two looks at the clock

  @Option(names = "--rules", description = "1,000 if left out.")
  private int rules = 1_000;

  @Option(names = "--rounds", description = "5 if left out.")
  private int rounds = 5;

  @Option(names = "--seconds", description = "Of each round; 5 if left out.")
  private int seconds = 5;

  /** The result of the peer, kept so that the compiler cannot leave its work out. */
  private volatile long decidedByPeer;

  @Override
  public void run() {
    for (Shape shape : Shape.values()) {
      RulebaseGenerator generator = new RulebaseGenerator(42, shape);
      Rulebase rulebase = generator.rulebase(rules);
      List<Connection> connections =
          Stream.generate(generator::connection).limit(CONNECTIONS).toList();
      DecisionSpeed gateway = new DecisionSpeed(rulebase, connections);
      LinearScan peer = new LinearScan(rulebase);
      gateway.perSecond(Duration.ofSeconds(seconds)); // warms up
      double[] own = new double[rounds];
      double[] others = new double[rounds];
      for (int round = 0; round < rounds; round++) {
        own[round] = gateway.perSecond(Duration.ofSeconds(seconds));
        others[round] = perSecond(peer, connections);
      }
      Arrays.sort(own);
      Arrays.sort(others);
      System.out.printf(
          "%d rules (%s): %,.0f connections a second (%,.0f to %,.0f), %.1f times one rule after"
              + " the other%n",
          rules,
          shape.name().toLowerCase(Locale.ROOT),
          own[rounds / 2],
          own[0],
          own[rounds - 1],
          own[rounds / 2] / others[rounds / 2]);
    }
  }

  private double perSecond(LinearScan peer, List<Connection> connections) {
    long start = System.nanoTime();
    long end = start + Duration.ofSeconds(seconds).toNanos();
    long count = 0;
    long decided = 0;
    long now;
    do {
      for (int i = 0; i < FEW; i++) {
        decided += peer.decide(connections.get((int) (count % CONNECTIONS))) == null ? 0 : 1;
        count++;
      }
      now = System.nanoTime();
    } while (now < end);
    decidedByPeer = decided;
    return count * NANOS_PER_SECOND / (now - start);
  }
}
