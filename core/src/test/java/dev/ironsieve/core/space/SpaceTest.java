package dev.ironsieve.core.space;

import static org.assertj.core.api.Assertions.assertThat;

import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Connection.Endpoint;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.ruleindex.RuleIndex;
import dev.ironsieve.core.twin.Rounds;
import dev.ironsieve.core.twin.SmallWorld;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.Test;

class SpaceTest {
  /** Leaves out what is known of a connection here and there. */
  private static Connection some(Connection connection, Random random) {
    Map<Coordinate, String> terms = new EnumMap<>(Coordinate.class);
    connection.terms().forEach((k, v) -> terms.put(k, random.nextInt(6) == 0 ? null : v));
    terms.values().removeIf(value -> value == null);
    boolean isNamed = random.nextInt(30) > 0;
    Endpoint from = connection.from();
    return new Connection(
        isNamed ? from : new Endpoint(from.zone(), null),
        connection.to(),
        connection.protocol(),
        random.nextInt(30) > 0 ? connection.detail() : Connection.UNKNOWN,
        random.nextInt(12) > 0 ? connection.sourcePort() : Connection.UNKNOWN,
        terms);
  }

  @Test
  void whatMayHoldAConnectionIsWhatHoldsItsPointWhereItHasOne() {
    int held = 0;
    int without = 0;
    int not = 0;
    for (int seed = 0; seed < Rounds.of(60); seed++) {
      Random random = new Random(seed);
      RuleIndex index = new RuleIndex(new SmallWorld(seed, true).rulebase(6));
      List<Connection> all = SmallWorld.connectionsWithTerms();
      for (int i = 0; i < 400; i++) {
        Connection connection = some(all.get(random.nextInt(all.size())), random);
        int[] point = index.space().point(connection);
        for (int handle = 0; handle < index.handles(); handle++) {
          boolean may = index.space().mayHold(index.region(handle), connection);
          assertThat(may)
              .as("seed %d: rule %s, %s", seed, index.rule(handle), connection)
              .isEqualTo(point == null || index.holds(handle, point));
          without += point == null ? 1 : 0;
          held += point != null && may ? 1 : 0;
          not += may ? 0 : 1;
        }
      }
    }
    assertThat(Math.min(held, Math.min(without, not))).isGreaterThan(Rounds.of(2000));
  }
}
