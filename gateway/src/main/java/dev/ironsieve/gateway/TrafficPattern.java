package dev.ironsieve.gateway;

import java.util.List;

/**
 * One kind of connections that a traffic generator makes.
 *
 * @param weight how often, against the others
 * @param from a zone and addresses in it, {@code offices 10.1.0.0/20}
 * @param to the same
 * @param services such as {@code tcp/443}; left out if there are applications
 * @param applications of the catalogue, with a feature or not; their usual ports and hosts are used
 * @param sites hosts asked for; may be left out
 * @param people whether people of the directory open them, each at an address of their own
 * @param persons those who open them, if not all people of the directory do; may be left out
 * @param device facts of the device; null for an unknown one
 * @param hours {@code work}, {@code sailings} or {@code always}: when they are frequent
 * @param kilobytes of such a connection, about
 * @param seconds that one is open, about
 */
record TrafficPattern(
    int weight,
    String from,
    String to,
    List<String> services,
    List<String> applications,
    List<String> sites,
    boolean people,
    List<String> persons,
    String device,
    String hours,
    long kilobytes,
    long seconds) {
  TrafficPattern {
    services = services == null ? List.of() : services;
    applications = applications == null ? List.of() : applications;
    sites = sites == null ? List.of() : sites;
    persons = persons == null ? List.of() : persons;
    if (services.isEmpty() && applications.isEmpty()) {
      throw new IllegalArgumentException("services or applications from " + from);
    }
  }

  /** How frequent they are at an hour of the day, from 0 to 1. */
  double frequency(int hour) {
    return switch (hours) {
      case "work" -> hour < 6 || hour > 19 ? 0.04 : hour == 9 || hour == 14 ? 1 : 0.6;
      case "sailings" -> hour < 5 || hour > 22 ? 0.1 : hour == 7 || hour == 17 ? 1 : 0.5;
      case "always" -> 0.5;
      default -> throw new IllegalArgumentException("hours " + hours);
    };
  }
}
