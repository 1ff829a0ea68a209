package dev.ironsieve.core.vocabulary;

import static org.assertj.core.api.Assertions.assertThat;

import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.DeviceState;
import dev.ironsieve.core.model.Vocabulary;
import dev.ironsieve.core.twin.Rounds;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import org.junit.jupiter.api.Test;

/** Which value is meant, held to reading the names of all of them. */
class ValueFinderTest {
  private static final List<String> DATES =
      List.of("2026-12-24", "2026-12-24T23:00", "2027-01-01", "2027-03-01T06:30");
  private static final List<String> MINUTES =
      List.of("mon 00:00", "mon 06:00", "wed 12:30", "sat 00:00", "sun 23:59");
  private static final List<String> PLATFORMS = List.of("kelpos", "reelos");
  private static final List<String> CONDITIONS = List.of("disk-lock", "fresh-updates");

  private static ValueFinder finder(Coordinate coordinate, List<String> names) {
    return new ValueFinder(new Vocabulary(coordinate, "e", names, List.of()));
  }

  private static LocalDateTime moment(String said) {
    return LocalDateTime.parse(said.contains("T") ? said : said + "T00:00");
  }

  /** The minute of the week with which a name begins. */
  private static int minute(String name) {
    String[] parts = name.split("[ :]");
    int day = List.of("mon", "tue", "wed", "thu", "fri", "sat", "sun").indexOf(parts[0]);
    return (day * 24 + Integer.parseInt(parts[1])) * 60 + Integer.parseInt(parts[2]);
  }

  private static boolean holds(String name, LocalDateTime at) {
    int own = ((at.getDayOfWeek().getValue() - 1) * 24 + at.getHour()) * 60 + at.getMinute();
    int before = name.indexOf(" before ");
    int from = name.indexOf(" from ");
    return minute(name) <= own
        && (before < 0 || at.isBefore(moment(name.substring(before + 8))))
        && (from < 0 || !at.isBefore(moment(name.substring(from + 6))));
  }

  /** Slices in spans, in their order. */
  private static List<String> times(List<String> minutes, List<String> dates) {
    List<String> out = new ArrayList<>();
    for (int span = 0; span <= dates.size(); span++) {
      for (String minute : minutes) {
        out.add(
            dates.isEmpty()
                ? minute
                : span == 0
                    ? minute + " before " + dates.getFirst()
                    : minute + " from " + dates.get(span - 1));
      }
    }
    return out;
  }

  @Test
  void aMomentIsInTheLastValueThatHoldsIt() {
    int none = 0;
    for (int seed = 0; seed < Rounds.of(400); seed++) {
      Random random = new Random(seed);
      List<String> dates = DATES.subList(0, random.nextInt(DATES.size() + 1));
      List<String> names =
          times(MINUTES.subList(random.nextInt(2), 2 + random.nextInt(MINUTES.size() - 1)), dates);
      if (random.nextInt(4) == 0) { // not as they are made, but they may come from elsewhere
        Collections.swap(names, random.nextInt(names.size()), random.nextInt(names.size()));
      }
      if (random.nextInt(4) == 0) {
        names.remove(random.nextInt(names.size()));
      }
      if (names.isEmpty()) {
        continue;
      }
      ValueFinder finder = finder(Coordinate.TIME, names);
      for (int i = 0; i < 40; i++) {
        LocalDateTime at =
            i < DATES.size()
                ? moment(DATES.get(i))
                : LocalDateTime.of(2026, 12, 1, 0, 0).plusMinutes(random.nextInt(120 * 24 * 60));
        String expected =
            names.stream().filter(name -> holds(name, at)).reduce((a, b) -> b).orElse(null);
        assertThat(finder.value(at.toString()))
            .as("seed %d: %s in %s", seed, at, names)
            .isEqualTo(Optional.ofNullable(expected));
        none += expected == null ? 1 : 0;
      }
    }
    assertThat(none).isGreaterThan(Rounds.least(300));
  }

  @Test
  void aTimeOfTheWeekIsFoundWhereNothingHangsOnTheDate() {
    ValueFinder week = finder(Coordinate.TIME, MINUTES);
    assertThat(week.value("mon 05:59")).contains("mon 00:00");
    assertThat(week.value("WED 12:30")).contains("wed 12:30");
    assertThat(week.value("sun 23:58")).contains("sat 00:00");
    assertThat(week.value("some day")).isEmpty();
    List<String> dated = times(MINUTES, DATES);
    ValueFinder dates = finder(Coordinate.TIME, dated);
    assertThat(dates.value("mon 05:59")).isEmpty();
    assertThat(dates.value(dated.getLast())).contains(dated.getLast());
    assertThat(dates.value("2026-12-24")).isEmpty();
    assertThat(finder(Coordinate.TIME, List.of("early", "late")).value("mon 05:59")).isEmpty();
  }

  private static String some(Random random, List<String> before, String word, List<String> all) {
    List<String> out = new ArrayList<>(before);
    for (String one : all) {
      if (random.nextBoolean()) {
        out.add(word + one);
      }
    }
    return String.join(", ", out);
  }

  @Test
  void aDeviceIsInTheValueThatSaysMostOfIt() {
    int found = 0;
    for (int seed = 0; seed < Rounds.of(300); seed++) {
      Random random = new Random(seed);
      List<String> names = new ArrayList<>();
      for (int i = 1 + random.nextInt(6); i > 0; i--) {
        List<String> first = new ArrayList<>();
        if (random.nextInt(8) > 0) {
          first.add(random.nextBoolean() ? "managed" : "unmanaged");
        }
        if (random.nextInt(3) == 0) {
          first.add("platform " + PLATFORMS.get(random.nextInt(2)));
        }
        String name = some(random, first, random.nextInt(6) > 0 ? "has " : "lacks ", CONDITIONS);
        if (!name.isEmpty() && !names.contains(name)) {
          names.add(name);
        }
      }
      if (names.isEmpty()) {
        continue;
      }
      ValueFinder finder = finder(Coordinate.DEVICE, names);
      for (int i = 0; i < 20; i++) {
        List<String> first = List.of("managed", "platform " + PLATFORMS.get(random.nextInt(2)));
        String said =
            some(random, first.subList(0, 1 + random.nextInt(2)), "has ", CONDITIONS)
                + ", has tides";
        DeviceState device = DeviceState.parse(said);
        String expected = null;
        int most = -1;
        for (String name : names) {
          DeviceState state = DeviceState.parse(name);
          int facing = state.has().size() + (state.platform() == null ? 0 : 1);
          if (state.holdsFor(device) && facing > most) {
            expected = name;
            most = facing;
          }
        }
        assertThat(finder.value(said))
            .as("seed %d: %s in %s", seed, said, names)
            .isEqualTo(Optional.ofNullable(expected));
        found += expected == null ? 0 : 1;
      }
      assertThat(finder.value("has disk-lock, has tides")).as("managed or not").isEmpty();
    }
    assertThat(found).isGreaterThan(Rounds.least(1000));
    ValueFinder elsewhere = finder(Coordinate.DEVICE, List.of("managed", "laptops of the pier"));
    assertThat(elsewhere.value("managed, has disk-lock")).isEmpty();
  }
}
