package dev.ironsieve.core.vocabulary;

import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Defaults;
import dev.ironsieve.core.model.DeviceState;
import java.util.Collections;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.SortedSet;
import java.util.TreeSet;
import java.util.concurrent.ConcurrentHashMap;

/**
 * An index of the values of a {@link DeviceVocabulary}. The value of a device is computed at the
 * first look-up with the same facts. Several threads may ask at once.
 */
final class DeviceIndex {
  private final Map<DeviceState, String> states = new LinkedHashMap<>(); // with the value's name
  private final Set<String> platforms = new HashSet<>();
  private final Set<String> conditions = new HashSet<>();
  private final Map<DeviceState, Optional<String>> found = new ConcurrentHashMap<>();

  /**
   * @param names what the values are called, in their order
   */
  DeviceIndex(List<String> names) {
    for (String name : names) {
      if (Defaults.isNamed(Coordinate.DEVICE, name)) {
        continue;
      }
      String facts = DeviceVocabulary.facts(name);
      if (!DeviceState.isOne(facts)) {
        states.clear();
        return; // values from elsewhere, which say nothing
      }
      DeviceState state = DeviceState.parse(facts);
      states.putIfAbsent(state, name);
      conditions.addAll(state.has());
      conditions.addAll(state.lacks());
      platforms.add(state.platform());
    }
  }

  /**
   * The name of the most specific value of a device whose management state is known; a condition
   * that it does not list does not hold.
   */
  Optional<String> value(String said) {
    if (states.isEmpty() || !DeviceState.isOne(said)) {
      return Optional.empty();
    }
    DeviceState device = DeviceState.parse(said);
    if (device.managed() == null) {
      return Optional.empty();
    }
    SortedSet<String> has = new TreeSet<>(device.has());
    has.retainAll(conditions);
    String platform = platforms.contains(device.platform()) ? device.platform() : null;
    return found.computeIfAbsent(
        new DeviceState(device.managed(), platform, has, Collections.emptySortedSet()),
        this::nearest);
  }

  private Optional<String> nearest(DeviceState device) {
    String best = null;
    int most = -1;
    for (Map.Entry<DeviceState, String> entry : states.entrySet()) {
      DeviceState state = entry.getKey();
      int facing = state.has().size() + (state.platform() == null ? 0 : 1);
      if (facing > most && state.holdsFor(device)) {
        best = entry.getValue();
        most = facing;
      }
    }
    return Optional.ofNullable(best);
  }
}
