package dev.ironsieve.core.sets;

import static org.assertj.core.api.Assertions.assertThat;

import dev.ironsieve.core.twin.Rounds;
import java.util.Random;
import org.junit.jupiter.api.Test;

class TransportSetTest {
  private static final int PORTS = 6;

  private static IntSet some(Random random, int offset) {
    IntSet out = IntSet.EMPTY;
    for (int i = random.nextInt(3); i >= 0; i--) {
      int first = random.nextInt(PORTS);
      out = out.union(IntSet.range(offset + first, offset + Math.min(PORTS - 1, first + 1)));
    }
    return out;
  }

  private static TransportSet random(Random random) {
    TransportSet out = TransportSet.EMPTY;
    for (int i = random.nextInt(3); i >= 0; i--) {
      IntSet services = some(random, Transport.position(Transport.TCP, 0));
      IntSet sources = random.nextBoolean() ? IntSet.range(0, PORTS - 1) : some(random, 0);
      out = out.union(TransportSet.of(services, sources));
    }
    return out;
  }

  @Test
  void unionAndDifferenceAgreeWithAskingEveryPair() {
    for (int seed = 0; seed < Rounds.of(500); seed++) {
      Random random = new Random(seed);
      TransportSet a = random(random);
      TransportSet b = random(random);
      for (int port = 0; port < PORTS; port++) {
        for (int source = 0; source < PORTS; source++) {
          boolean inA = a.contains(Transport.TCP, port, source);
          boolean inB = b.contains(Transport.TCP, port, source);
          assertThat(a.union(b).contains(Transport.TCP, port, source)).isEqualTo(inA || inB);
          assertThat(a.minus(b).contains(Transport.TCP, port, source)).isEqualTo(inA && !inB);
        }
      }
      for (TransportSet.Rectangle one : a.union(b).parts()) {
        long overlaps =
            a.union(b).parts().stream()
                .filter(other -> other.services().intersects(one.services()))
                .filter(other -> other.sourcePorts().intersects(one.sourcePorts()))
                .count();
        assertThat(overlaps).as("seed %d: boxes are disjoint", seed).isOne();
      }
    }
  }

  /** However a set came about, it is the same. */
  @Test
  void equalSetsAreEqual() {
    for (int seed = 0; seed < Rounds.of(1000); seed++) {
      Random random = new Random(seed);
      TransportSet a = random(random);
      TransportSet b = random(random);
      assertThat(a.union(b))
          .as("seed %d", seed)
          .isEqualTo(b.union(a))
          .hasSameHashCodeAs(b.union(a));
      TransportSet both = a.minus(a.minus(b));
      assertThat(a.minus(b).union(both)).as("seed %d", seed).isEqualTo(a);
      assertThat(a.union(b).minus(a.minus(both))).as("seed %d", seed).isEqualTo(b);
    }
    TransportSet all = TransportSet.ALL;
    TransportSet tcp = TransportSet.of(Transport.whole(Transport.TCP), Transport.ANY_PORT);
    assertThat(all.minus(tcp).union(tcp)).isEqualTo(all);
    assertThat(tcp.minus(tcp)).isEqualTo(TransportSet.EMPTY);
  }

  @Test
  void everySourcePortIsOneObject() {
    IntSet web = IntSet.of(Transport.position(Transport.TCP, 443));
    TransportSet low = TransportSet.of(web, IntSet.range(0, 1023));
    TransportSet high = TransportSet.of(web, IntSet.range(1024, 65_535));
    TransportSet every = TransportSet.of(web, IntSet.range(0, 65_535));
    assertThat(every.parts().getFirst().sourcePorts()).isSameAs(Transport.ANY_PORT);
    assertThat(low.union(high).parts().getFirst().sourcePorts()).isSameAs(Transport.ANY_PORT);
    assertThat(every.minus(low)).isEqualTo(high);
  }

  @Test
  void whatIsUnknownIsInWhatDoesNotTellItApart() {
    TransportSet tcp = TransportSet.of(Transport.whole(Transport.TCP), Transport.ANY_PORT);
    assertThat(tcp.contains(Transport.TCP, -1, -1)).isTrue();
    assertThat(tcp.contains(Transport.UDP, -1, -1)).isFalse();
    TransportSet web =
        TransportSet.of(IntSet.of(Transport.position(Transport.TCP, 443)), Transport.ANY_PORT);
    assertThat(web.contains(Transport.TCP, 443, -1)).isTrue();
    assertThat(web.contains(Transport.TCP, -1, -1)).isFalse();
  }
}
