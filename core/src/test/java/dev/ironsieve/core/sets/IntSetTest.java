package dev.ironsieve.core.sets;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.BitSet;
import java.util.Random;
import java.util.Set;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import net.jqwik.api.constraints.Size;
import org.junit.jupiter.api.Test;

class IntSetTest {
  private static final int MAX = 40;

  private static IntSet set(BitSet bits) {
    IntSet.Builder out = new IntSet.Builder();
    bits.stream().forEach(v -> out.addInOrder(v, v));
    return out.build();
  }

  private static BitSet bits(Set<Integer> values) {
    BitSet out = new BitSet();
    values.forEach(out::set);
    return out;
  }

  @Property
  void agreesWithBitSets(
      @ForAll @Size(max = 25) Set<@IntRange(max = MAX) Integer> left,
      @ForAll @Size(max = 25) Set<@IntRange(max = MAX) Integer> right) {
    BitSet a = bits(left);
    BitSet b = bits(right);
    BitSet union = bits(left);
    union.or(b);
    BitSet both = bits(left);
    both.and(b);
    BitSet minus = bits(left);
    minus.andNot(b);
    assertThat(set(a).union(set(b))).isEqualTo(set(union));
    assertThat(set(a).intersect(set(b))).isEqualTo(set(both));
    assertThat(set(a).minus(set(b))).isEqualTo(set(minus));
    assertThat(set(a).intersects(set(b))).isEqualTo(!both.isEmpty());
    assertThat(set(a).containsAll(set(b))).isEqualTo(both.equals(b));
    assertThat(set(a).size()).isEqualTo(a.cardinality());
    for (int v = 0; v <= MAX + 1; v++) {
      assertThat(set(a).contains(v)).as("contains %d", v).isEqualTo(a.get(v));
    }
    int rank = 0;
    for (int v = a.nextSetBit(0); v >= 0; v = a.nextSetBit(v + 1)) {
      assertThat(set(a).get(rank++)).isEqualTo(v);
    }
  }

  /** Sets of very many intervals are asked about those of few in another way. */
  @Test
  void agreesWithBitSetsWhereOneHasManyMoreIntervals() {
    int intersecting = 0;
    for (int seed = 0; seed < 3000; seed++) {
      Random random = new Random(seed);
      BitSet many = new BitSet();
      for (int value = random.nextInt(30); value < 600; value += 2 + random.nextInt(8)) {
        many.set(value, value + 1 + random.nextInt(3));
      }
      BitSet few = new BitSet();
      for (int i = random.nextInt(4); i >= 0; i--) {
        int first = random.nextInt(620);
        few.set(first, first + 1 + random.nextInt(3));
      }
      BitSet both = (BitSet) many.clone();
      both.and(few);
      intersecting += both.isEmpty() ? 0 : 1;
      assertThat(set(many).intersects(set(few))).as("seed %d", seed).isEqualTo(!both.isEmpty());
      assertThat(set(few).intersects(set(many))).isEqualTo(!both.isEmpty());
      assertThat(set(many).intersect(set(few))).isEqualTo(set(both));
      assertThat(set(few).intersect(set(many))).isEqualTo(set(both));
      assertThat(set(many).containsAll(set(few))).isEqualTo(both.equals(few));
      assertThat(set(few).containsAll(set(many))).isEqualTo(both.equals(many));
    }
    assertThat(intersecting).isBetween(500, 2900);
  }

  @Test
  void neighboursCoalesceSoThatEqualSetsAreEqual() {
    IntSet pieces = IntSet.range(1, 3).union(IntSet.range(4, 9));
    assertThat(pieces).isEqualTo(IntSet.range(1, 9)).hasToString("{1..9}");
    assertThat(pieces.intervals()).isOne();
  }

  @Test
  void valuesComeBackAscendingAndEachOnce() {
    assertThat(IntSet.of(new int[] {7, 3, 4, 3, 9}).toArray()).containsExactly(3, 4, 7, 9);
    assertThat(IntSet.of(new int[] {7, 3, 4, 3, 9}))
        .isEqualTo(IntSet.range(3, 4).union(IntSet.of(7)).union(IntSet.of(9)));
    assertThat(IntSet.of(new int[0])).isSameAs(IntSet.EMPTY);
    assertThat(IntSet.EMPTY.toArray()).isEmpty();
  }

  @Test
  void theLargestSetsAreCountedToo() {
    IntSet all = IntSet.range(0, Integer.MAX_VALUE - 1);
    assertThat(all.size()).isEqualTo(Integer.MAX_VALUE);
    assertThat(all.minus(IntSet.of(5)).size()).isEqualTo(Integer.MAX_VALUE - 1L);
    assertThat(all.size()).as("again").isEqualTo(Integer.MAX_VALUE);
    assertThat(IntSet.EMPTY.size()).isZero();
  }

  @Test
  void refusesWhatIsNoInterval() {
    assertThatThrownBy(() -> IntSet.range(3, 2)).hasMessageContaining("3..2");
    assertThatThrownBy(() -> IntSet.range(-1, 2)).hasMessageContaining("-1..2");
    assertThatThrownBy(() -> IntSet.of(5).get(1)).hasMessageContaining("rank 1");
  }
}
