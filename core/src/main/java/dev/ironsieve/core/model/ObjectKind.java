package dev.ironsieve.core.model;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.stream.Stream;

/** The kinds of objects that rules name. */
public enum ObjectKind {
  ZONE,
  ADDRESS,
  SERVICE,
  HOST_LIST,
  SCHEDULE,
  DEVICE_STATE,
  RATE_PLAN,
  NOTICE;

  public String word() {
    return name().toLowerCase(Locale.ROOT).replace('_', ' ');
  }

  /** The kinds of {@link TermObject}. */
  public static final List<ObjectKind> OF_TERMS =
      Stream.of(values()).filter(kind -> kind.coordinate() != null).toList();

  /** The coordinate whose values are meant; null if there is none. */
  public Coordinate coordinate() {
    return switch (this) {
      case HOST_LIST -> Coordinate.SITE;
      case SCHEDULE -> Coordinate.TIME;
      case DEVICE_STATE -> Coordinate.DEVICE;
      case ZONE, ADDRESS, SERVICE, RATE_PLAN, NOTICE -> null;
    };
  }

  /** The names of this kind that {@code rule} mentions itself. */
  public List<String> namesIn(Rule rule) {
    List<String> out = new ArrayList<>();
    switch (this) {
      case ZONE -> {
        out.addAll(rule.fromZones().mentioned());
        out.addAll(rule.toZones().mentioned());
      }
      case ADDRESS -> {
        out.addAll(AddressItem.names(rule.fromAddresses().mentioned()));
        out.addAll(AddressItem.names(rule.toAddresses().mentioned()));
      }
      case SERVICE -> out.addAll(ServiceItem.names(rule.services().mentioned()));
      case RATE_PLAN -> Stream.ofNullable(rule.ratePlan()).forEach(out::add);
      case NOTICE -> Stream.ofNullable(rule.notice()).forEach(out::add);
      case HOST_LIST, SCHEDULE, DEVICE_STATE -> out.addAll(rule.term(coordinate()).mentioned());
    }
    return out;
  }
}
