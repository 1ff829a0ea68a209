package dev.ironsieve.core.model;

import java.util.List;

/**
 * A named set of values that people write themselves: a host list, a schedule, or a device state.
 *
 * @param kind {@link ObjectKind#HOST_LIST}, {@link ObjectKind#SCHEDULE} or {@link
 *     ObjectKind#DEVICE_STATE}
 * @param members texts that {@link SitePattern}, {@link ScheduleItem} or {@link DeviceState} read;
 *     at least one. A schedule holds at one of its times of the week, if it has any, on one of its
 *     days, if it has any; the others hold where one of their members does
 */
public record TermObject(ObjectKind kind, String name, List<String> members, String note) {
  /** Most members of one object of any kind. */
  public static final int MAX_MEMBERS = 10_000;

  public TermObject {
    if (kind.coordinate() == null) {
      throw new IllegalArgumentException("not of terms: " + kind);
    }
    Names.checkObject(kind.word(), name);
    if (isLiteral(kind.coordinate(), name)) {
      throw new InvalidModel(
          kind.word() + " name", "a name that does not read like a member", Names.quoted(name));
    }
    members = List.copyOf(members);
    checkMembers(kind.word(), name, members);
    for (String member : members) {
      check(kind, member);
    }
    Names.checkNote(note);
  }

  /** Refuses an object without members, and one with too many. */
  static void checkMembers(String kind, String name, List<?> members) {
    if (members.isEmpty() || members.size() > MAX_MEMBERS) {
      throw new InvalidModel(
          kind + " \"" + name + "\"", "1 to " + MAX_MEMBERS + " members", members.size() + "");
    }
  }

  /**
   * Checks one member.
   *
   * @throws InvalidModel if it is none
   */
  public static void check(ObjectKind kind, String member) {
    switch (kind) {
      case HOST_LIST -> SitePattern.parse(member);
      case SCHEDULE -> ScheduleItem.parse(member);
      case DEVICE_STATE -> DeviceState.parse(member);
      case ZONE, ADDRESS, SERVICE, RATE_PLAN, NOTICE ->
          throw new IllegalArgumentException("not of terms: " + kind);
    }
  }

  /**
   * Whether a text is a host pattern, a time or a state of a device that rules can say without a
   * name; or that there is no host, or that nothing is known of the device.
   */
  public static boolean isLiteral(Coordinate coordinate, String text) {
    return switch (coordinate) {
      case SITE -> SitePattern.isOne(text) || Defaults.isNamed(Coordinate.SITE, text);
      case TIME -> ScheduleItem.isOne(text);
      case DEVICE -> DeviceState.isOne(text) || Defaults.isNamed(Coordinate.DEVICE, text);
      case PERSON, APPLICATION, FILE_KIND -> false;
    };
  }
}
