package dev.ironsieve.core.model;

import java.time.ZoneId;
import java.util.Map;
import java.util.TreeMap;

/** Time zones by their names in the time zone database (RFC 6557), and UTC. */
public final class TimeZones {
  private static final Map<String, String> NAMES = new TreeMap<>(String.CASE_INSENSITIVE_ORDER);

  static {
    for (String id : ZoneId.getAvailableZoneIds()) {
      if (id.equals("UTC") || id.indexOf('/') > 0 && !id.startsWith("SystemV/")) {
        NAMES.put(id, id);
      }
    }
  }

  private TimeZones() {}

  /**
   * Reads a name, in letters of any case.
   *
   * @throws InvalidModel if there is no such time zone
   */
  public static ZoneId parse(String text) {
    String id = NAMES.get(text);
    if (id == null) {
      throw new InvalidModel(
          "time zone", "the name of a time zone such as Europe/Oslo, or UTC", Names.quoted(text));
    }
    return ZoneId.of(id);
  }
}
