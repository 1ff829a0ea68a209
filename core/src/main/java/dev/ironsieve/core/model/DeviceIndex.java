package dev.ironsieve.core.model;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SortedSet;
import java.util.TreeSet;

/**
 * The values of a {@link DeviceVocabulary}, read once, so that the one of a device is looked up.
 */
final class DeviceIndex {
  private final List<DeviceState> states = new ArrayList<>(); // by value; none if from elsewhere
  private final Map<DeviceState, String> names = new HashMap<>(); // the first of each
  private boolean whole = true; // whether each says whether it is managed, and what a device has
  private final SortedSet<String> platforms = new TreeSet<>();
  private final SortedSet<String> conditions = new TreeSet<>();

  /**
   * @param names what the values are called, in their order
   */
  DeviceIndex(List<String> names) {
    for (String name : names) {
      String facts = DeviceVocabulary.facts(name);
      if (!DeviceState.isOne(facts)) {
        states.clear();
        this.names.clear();
        return;
      }
      DeviceState state = DeviceState.parse(facts);
      states.add(state);
      whole &= state.managed() != null && state.lacks().isEmpty();
      this.names.putIfAbsent(state, name);
      conditions.addAll(state.has());
      if (state.platform() != null) {
        platforms.add(state.platform());
      }
    }
  }

  /**
   * The name of the value that a device has of which it is said whether it is managed; conditions
   * that are not said do not hold.
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
    boolean named = device.platform() != null && platforms.contains(device.platform());
    String platform = named ? device.platform() : null;
    String exact = names.get(new DeviceState(device.managed(), platform, has, new TreeSet<>()));
    return whole && exact != null ? Optional.of(exact) : nearest(device);
  }

  /** Of values from elsewhere the one that says most of it. */
  private Optional<String> nearest(DeviceState device) {
    DeviceState best = null;
    int most = -1;
    for (DeviceState state : states) {
      int facing = state.has().size() + (state.platform() == null ? 0 : 1);
      if (facing > most && state.holdsFor(device)) {
        best = state;
        most = facing;
      }
    }
    return Optional.ofNullable(names.get(best));
  }
}
