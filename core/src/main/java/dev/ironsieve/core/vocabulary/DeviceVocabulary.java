package dev.ironsieve.core.vocabulary;

import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Defaults;
import dev.ironsieve.core.model.DeviceState;
import dev.ironsieve.core.model.InvalidModel;
import dev.ironsieve.core.model.Names;
import dev.ironsieve.core.model.TermObject;
import dev.ironsieve.core.model.Vocabulary;
import dev.ironsieve.core.sets.IntSet;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.SortedSet;
import java.util.TreeSet;

/**
 * The vocabulary of devices, derived from the platforms and conditions in rules and device states:
 * one value for each combination of these, with all other platforms as one.
 *
 * <pre>
 *   "managed, platform kelpos, has disk-lock"    every fact
 *   "managed, platform kelpos, else"             no lock
 *   "unmanaged, else"                            another platform, no lock
 * </pre>
 */
final class DeviceVocabulary {
  private static final int MOST_VALUES = 20_000;
  private static final String ELSE = ", else";

  private DeviceVocabulary() {}

  /**
   * @param objects device states, each of which stands for any of its members
   * @param literals states that rules say themselves, as they are written
   */
  static Vocabulary of(List<TermObject> objects, Collection<String> literals) {
    SortedSet<String> platforms = new TreeSet<>();
    SortedSet<String> conditions = new TreeSet<>();
    List<List<DeviceState>> asked = new ArrayList<>();
    objects.forEach(o -> asked.add(o.members().stream().map(DeviceState::parse).toList()));
    literals.forEach(
        literal ->
            asked.add(
                Defaults.isNamed(Coordinate.DEVICE, literal)
                    ? List.of()
                    : List.of(DeviceState.parse(literal))));
    for (List<DeviceState> states : asked) {
      for (DeviceState state : states) {
        if (state.platform() != null) {
          platforms.add(state.platform());
        }
        conditions.addAll(state.has());
        conditions.addAll(state.lacks());
      }
    }
    List<DeviceState> devices = devices(List.copyOf(platforms), List.copyOf(conditions));
    List<String> values = new ArrayList<>();
    for (DeviceState device : devices) {
      boolean all =
          device.has().size() == conditions.size()
              && (platforms.isEmpty() || device.platform() != null);
      values.add(device + (all ? "" : ELSE));
    }
    values.add(Defaults.UNKNOWN_DEVICE);
    Set<String> named = new HashSet<>(values);
    List<Vocabulary.Term> terms = new ArrayList<>();
    int at = 0;
    for (TermObject object : objects) {
      terms.add(new Vocabulary.Term(object.name(), those(devices, asked.get(at++))));
    }
    for (String literal : literals) {
      if (named.add(Names.key(literal))) { // else it is just that value
        terms.add(new Vocabulary.Term(literal, those(devices, asked.get(at))));
      }
      at++;
    }
    return new Vocabulary(Coordinate.DEVICE, "as written", values, terms);
  }

  private static List<DeviceState> devices(List<String> platforms, List<String> conditions) {
    long values = 2L * (platforms.size() + 1) << Math.min(conditions.size(), 32);
    if (values > MOST_VALUES) {
      throw new InvalidModel(
          "device states",
          "at most " + MOST_VALUES + " ways in which platforms and conditions can be so",
          platforms.size() + " platforms and " + conditions.size() + " conditions");
    }
    List<DeviceState> out = new ArrayList<>();
    for (boolean managed : new boolean[] {true, false}) {
      for (int platform = 0; platform <= platforms.size(); platform++) {
        for (int held = (1 << conditions.size()) - 1; held >= 0; held--) {
          SortedSet<String> has = new TreeSet<>();
          for (int i = 0; i < conditions.size(); i++) {
            if ((held & 1 << i) != 0) {
              has.add(conditions.get(i));
            }
          }
          String name = platform < platforms.size() ? platforms.get(platform) : null;
          out.add(new DeviceState(managed, name, has, new TreeSet<>()));
        }
      }
    }
    return out;
  }

  private static IntSet those(List<DeviceState> devices, List<DeviceState> asked) {
    IntSet.Builder out = new IntSet.Builder();
    for (int i = 0; i < devices.size(); i++) {
      DeviceState device = devices.get(i);
      if (asked.stream().anyMatch(state -> state.holdsFor(device))) {
        out.addInOrder(i, i);
      }
    }
    return out.build();
  }

  /** The facts in the name of a value. */
  static String facts(String name) {
    return name.endsWith(ELSE) ? name.substring(0, name.length() - ELSE.length()) : name;
  }
}
