package dev.ironsieve.core.space;

import static org.assertj.core.api.Assertions.assertThat;

import dev.ironsieve.core.model.Connection.Endpoint;
import dev.ironsieve.core.model.Zone;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.sets.AddressRange;
import dev.ironsieve.core.sets.AddressSet;
import dev.ironsieve.core.sets.Family;
import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.space.Representatives.Draws;
import dev.ironsieve.core.twin.Rounds;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.SplittableRandom;
import java.util.function.BiFunction;
import java.util.function.Function;
import java.util.function.ToIntBiFunction;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;

/** The classes of some sets on axes that had more classes before, compared value by value. */
class RepresentativesTest {
  private static final int VALUES = 40;

  /** The code that is drawn with a number that stands for a rank. */
  private static int drawn(Draws draws, int rank) {
    return draws.drawn().applyAsInt(rank * (Long.divideUnsigned(-1, draws.count()) + 1));
  }

  /** What some sets tell apart when others came and went before. */
  private static Representatives among(
      Random random, Axis line, List<IntSet> gone, List<IntSet> sets) {
    Representatives found = new Representatives(line, gone);
    List<IntSet> held = new ArrayList<>(gone);
    List<IntSet> coming = new ArrayList<>(sets);
    coming.add(sets.getFirst());
    List<IntSet> going = new ArrayList<>(gone);
    going.add(sets.getFirst());
    while (!coming.isEmpty() || !going.isEmpty()) {
      if (random.nextInt(4) == 0) {
        found.prepare();
      }
      if (going.isEmpty() || !coming.isEmpty() && random.nextBoolean()) {
        IntSet set = coming.removeFirst();
        assertThat(found.add(set)).isEqualTo(!held.contains(set));
        held.add(set);
      } else if (held.contains(going.getFirst())) {
        IntSet set = going.removeFirst();
        held.remove(set);
        assertThat(found.remove(set)).isEqualTo(!held.contains(set));
      }
    }
    found.prepare();
    return found;
  }

  private static List<IntSet> randomSets(Random random, int most) {
    return new ArrayList<>(
        IntStream.range(0, random.nextInt(most))
            .mapToObj(i -> NumberAxisTest.randomSet(random, VALUES - 1))
            .filter(set -> !set.isEmpty())
            .toList());
  }

  /** Values that some sets do not tell apart, in the order of the lowest. */
  private static List<List<Integer>> groups(List<IntSet> sets, IntSet values, boolean onlyRuns) {
    Map<Object, List<Integer>> out = new LinkedHashMap<>();
    List<Boolean> before = null;
    int run = 0;
    for (int value = 0; value < VALUES; value++) {
      int v = value;
      if (values.contains(value)) {
        List<Boolean> kind = sets.stream().map(set -> set.contains(v)).toList();
        run += kind.equals(before) ? 0 : 1;
        before = kind;
        out.computeIfAbsent(onlyRuns ? run : kind, k -> new ArrayList<>()).add(value);
      }
    }
    return List.copyOf(out.values());
  }

  /**
   * Draws each group of each of some random sets once.
   *
   * @param made of sets that are there before
   * @param codes of a set of values
   * @param codeOf of a value
   */
  private static <L extends Axis> void compare(
      int seed,
      IntSet values,
      Function<List<IntSet>, L> made,
      BiFunction<L, IntSet, IntSet> codes,
      ToIntBiFunction<L, Integer> codeOf) {
    Random random = new Random(seed);
    List<IntSet> gone = randomSets(random, 4);
    List<IntSet> sets = randomSets(random, 4);
    sets.removeIf(set -> !set.intersects(values));
    sets.add(values);
    L line = made.apply(gone);
    List<IntSet> coded = sets.stream().map(set -> codes.apply(line, set)).toList();
    randomSets(random, 3).forEach(set -> codes.apply(line, set));
    Representatives found =
        among(random, line, gone.stream().map(set -> codes.apply(line, set)).toList(), coded);
    List<List<Integer>> groups = groups(sets, values, line instanceof NumberAxis);
    for (int i = 0; i < sets.size(); i++) {
      String as = "seed " + seed + ", " + sets.get(i);
      IntSet set = sets.get(i);
      List<List<Integer>> inside =
          groups.stream().filter(group -> set.contains(group.getFirst())).toList();
      Draws draws = found.of(coded.get(i));
      assertThat(draws.count()).as(as).isEqualTo(inside.size());
      for (int rank = 0; rank < draws.count(); rank++) {
        assertThat(inside.get(rank).stream().map(value -> codeOf.applyAsInt(line, value)))
            .as("%s, number %d", as, rank)
            .contains(drawn(draws, rank));
      }
    }
  }

  @Test
  void ofNamesThoseAreOneThatAreInTheSameSets() {
    for (int seed = 0; seed < Rounds.of(300); seed++) {
      compare(
          seed,
          IntSet.range(0, VALUES - 1),
          gone -> new SymbolAxis(VALUES, gone),
          SymbolAxis::codes,
          SymbolAxis::codeOf);
    }
  }

  @Test
  void ofNumbersThoseAreOneThatNoSetTellsFromTheirNeighbours() {
    for (int seed = 0; seed < Rounds.of(300); seed++) {
      IntSet feasible = NumberAxisTest.randomSet(new Random(~seed), VALUES - 1).union(IntSet.of(3));
      compare(
          seed,
          feasible,
          gone -> new NumberAxis(feasible, gone),
          NumberAxis::codes,
          NumberAxis::codeOf);
    }
  }

  @Test
  void ofEndsTheyAreTheClassesOfALineThatTellsNothingElseApart() {
    List<Zone> zones =
        List.of(
            new Zone("quay", networks("10.0.0.0/29", "10.0.0.12/30", "fd00::/125"), ""),
            new Zone("sea", List.of(), ""));
    Resolution resolution =
        new Resolution(new Rulebase("r", zones, List.of(), List.of(), List.of()));
    int drawn = 0;
    for (int seed = 0; seed < Rounds.of(300); seed++) {
      Random random = new Random(seed);
      List<EndpointAxis.Side> sides = randomSides(random, 6);
      sides.add(new EndpointAxis.Side(IntSet.range(0, 1), AddressSet.ALL));
      List<EndpointAxis.Side> gone = randomSides(random, 6);
      EndpointAxis line = new EndpointAxis(resolution, gone);
      EndpointAxis alone = new EndpointAxis(resolution, sides);
      List<IntSet> codes = codes(line, sides);
      List<IntSet> expected = codes(alone, sides);
      codes(line, randomSides(random, 3));
      Representatives found = among(random, line, notEmpty(codes(line, gone)), notEmpty(codes));
      for (int i = 0; i < codes.size(); i++) {
        String as = "seed " + seed + ", " + sides.get(i / Family.values().length);
        if (codes.get(i).isEmpty()) {
          assertThat(expected.get(i).isEmpty()).isTrue();
          continue;
        }
        Draws draws = found.of(codes.get(i));
        assertThat(draws.count()).as(as).isEqualTo((int) alone.count(expected.get(i)));
        for (int rank = 0; rank < draws.count(); rank++) {
          Endpoint end = line.value(drawn(draws, rank), List.of());
          assertThat(alone.codeOf("quay".equals(end.zone()) ? 0 : 1, end.address()))
              .as("%s, number %d: %s", as, rank, end)
              .isEqualTo(alone.pick(expected.get(i), rank));
          drawn++;
        }
      }
    }
    assertThat(drawn).isGreaterThan(Rounds.least(3000));
  }

  private static List<AddressRange> networks(String... texts) {
    return Arrays.stream(texts).map(AddressRange::parse).toList();
  }

  private static List<EndpointAxis.Side> randomSides(Random random, int most) {
    List<EndpointAxis.Side> out = new ArrayList<>();
    for (int i = random.nextInt(most); i > 0; i--) {
      int first = random.nextInt(16);
      int last = first + random.nextInt(16 - first);
      AddressRange range =
          AddressRange.parse(
              (random.nextBoolean() ? "10.0.0.%d-10.0.0.%d" : "fd00::%x-fd00::%x")
                  .formatted(first, last));
      IntSet zones = random.nextInt(3) == 0 ? IntSet.range(0, 1) : IntSet.of(random.nextInt(2));
      out.add(new EndpointAxis.Side(zones, AddressSet.of(List.of(range))));
    }
    return out;
  }

  private static List<IntSet> notEmpty(List<IntSet> sets) {
    return sets.stream().filter(set -> !set.isEmpty()).toList();
  }

  /** Of each side one set for each family. */
  private static List<IntSet> codes(EndpointAxis line, List<EndpointAxis.Side> sides) {
    return sides.stream()
        .flatMap(side -> Arrays.stream(line.codes(side.zones(), side.addresses())))
        .toList();
  }

  @Test
  void ofManyEachIsAsLikely() {
    int values = 1000;
    IntSet wanted = IntSet.range(100, 349);
    SymbolAxis line =
        new SymbolAxis(values, IntStream.range(0, values).mapToObj(IntSet::of).toList());
    List<IntSet> sets = IntStream.range(0, values).mapToObj(IntSet::of).map(line::codes).toList();
    Representatives all = new Representatives(line, sets);
    IntSet codes = line.codes(wanted);
    Draws some = all.of(codes);
    assertThat(some.count()).isEqualTo(250);
    int[] hits = new int[values];
    SplittableRandom random = new SplittableRandom(1);
    int draws = 250 * 400;
    for (int i = 0; i < draws; i++) {
      hits[line.value(some.drawn().applyAsInt(random.nextLong()))]++;
    }
    assertThat(IntStream.range(0, values).filter(value -> !wanted.contains(value)))
        .allMatch(value -> hits[value] == 0);
    // Of 250 such counts, of deviation 20, none is six of these from 400 but once in a million.
    assertThat(Arrays.stream(hits, 100, 350)).allMatch(hit -> hit > 280 && hit < 520);
  }

  @Test
  void aGroupMoreLeavesDrawsWhereTheyWereOrMovesThemByOne() {
    IntSet all = IntSet.range(0, VALUES - 1);
    List<IntSet> sets = new ArrayList<>(List.of(all));
    for (int i = 0; i <= 20; i += 2) {
      sets.add(IntSet.of(i));
    }
    NumberAxis line = new NumberAxis(all, sets);
    List<IntSet> codes = new ArrayList<>(sets.stream().map(line::codes).toList());
    Representatives found = new Representatives(line, codes);
    Draws before = found.of(line.all());
    assertThat(before.count()).isEqualTo(22);
    SplittableRandom random = new SplittableRandom(2);
    long[] numbers = random.longs(1000).toArray();
    int[] was =
        Arrays.stream(numbers).mapToInt(n -> line.value(before.drawn().applyAsInt(n))).toArray();
    found.add(line.codes(IntSet.range(30, VALUES - 1)));
    Draws after = found.of(line.all());
    assertThat(after.count()).isEqualTo(23);
    int moved = 0;
    for (int i = 0; i < numbers.length; i++) {
      int is = line.value(after.drawn().applyAsInt(numbers[i]));
      assertThat(is).isIn(was[i], was[i] + 1, was[i] == 21 ? 30 : -1);
      moved += is == was[i] ? 0 : 1;
    }
    assertThat(moved).isBetween(400, 600); // the higher the likelier
  }
}
