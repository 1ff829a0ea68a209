package dev.ironsieve.core.model;

import java.util.List;

/**
 * A named set of values that people write themselves: a host list, or a schedule.
 *
 * @param kind {@link ObjectKind#HOST_LIST} or {@link ObjectKind#SCHEDULE}
 * @param members texts that {@link SitePattern} or {@link ScheduleItem} read; at least one. A
 *     schedule holds at one of its times of the week, if it has any, on one of its days, if it has
 *     any
 */
public record TermObject(ObjectKind kind, String name, List<String> members, String note) {
  /** Most members of one list. */
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
    if (members.isEmpty() || members.size() > MAX_MEMBERS) {
      throw new InvalidModel(
          kind.word() + " \"" + name + "\"",
          "1 to " + MAX_MEMBERS + " members",
          members.size() + "");
    }
    for (String member : members) {
      check(kind, member);
    }
    Names.checkNote(note);
  }

  /**
   * Checks one member.
   *
   * @throws InvalidModel if it is none
   */
  public static void check(ObjectKind kind, String member) {
    if (kind == ObjectKind.HOST_LIST) {
      SitePattern.parse(member);
    } else {
      ScheduleItem.parse(member);
    }
  }

  /** Whether a text is a host pattern, or a time, that rules can say without a name. */
  public static boolean isLiteral(Coordinate coordinate, String text) {
    return switch (coordinate) {
      case SITE -> SitePattern.isOne(text);
      case TIME -> ScheduleItem.isOne(text);
      default -> false;
    };
  }
}
