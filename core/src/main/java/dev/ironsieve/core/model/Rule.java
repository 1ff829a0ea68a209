package dev.ironsieve.core.model;

import java.util.Collections;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;

/**
 * One rule: it matches a connection if every criterion holds.
 *
 * @param id stays the same for the rule's whole life, through renaming and moving
 * @param enabled a disabled rule is passed over
 * @param unfinished whether it is new and has no criterion, and nobody confirmed that it is for any
 *     connection; then it decides nothing. False as soon as it has a criterion
 * @param observeOnly whether it decides nothing, while gateways count and log its matches that no
 *     earlier rule takes
 * @param terms the criteria on the coordinates of vocabularies, without those that hold for any
 *     value
 * @param ratePlan name of its rate plan; null for none
 * @param notice name of the page that people see; null for none
 * @param hold minutes for which whoever it decides about is refused everything, 1 to {@value
 *     #MAX_HOLD}; null for none
 * @param validity its start and end date
 */
public record Rule(
    String id,
    String name,
    boolean enabled,
    boolean unfinished,
    boolean observeOnly,
    Criterion<String> fromZones,
    Criterion<AddressItem> fromAddresses,
    Criterion<String> toZones,
    Criterion<AddressItem> toAddresses,
    Criterion<ServiceItem> services,
    Map<Coordinate, Criterion<String>> terms,
    Verdict verdict,
    Opening opening,
    Logging logging,
    String ratePlan,
    String notice,
    Integer hold,
    String note,
    Validity validity,
    Ownership ownership) {
  /** Longest hold, a week. */
  public static final int MAX_HOLD = 7 * 24 * 60;

  public Rule {
    Names.checkId("rule", id);
    name = Names.checkTitle("rule", name);
    Names.checkNote(note);
    if (hold != null && (hold < 1 || hold > MAX_HOLD)) {
      throw new InvalidModel(
          "rule \"" + name + "\"", "a hold of 1 to " + MAX_HOLD + " minutes", hold + "");
    }
    terms = narrowing(terms);
    unfinished &=
        terms.isEmpty()
            && fromZones.isAny()
            && fromAddresses.isAny()
            && toZones.isAny()
            && toAddresses.isAny()
            && services.isAny();
  }

  /** A finished rule that is valid on any day and that nobody owns. */
  public Rule(
      String id,
      String name,
      boolean enabled,
      Criterion<String> fromZones,
      Criterion<AddressItem> fromAddresses,
      Criterion<String> toZones,
      Criterion<AddressItem> toAddresses,
      Criterion<ServiceItem> services,
      Map<Coordinate, Criterion<String>> terms,
      Verdict verdict,
      Opening opening,
      Logging logging,
      String ratePlan,
      String notice,
      String note) {
    this(
        id,
        name,
        enabled,
        false,
        false,
        fromZones,
        fromAddresses,
        toZones,
        toAddresses,
        services,
        terms,
        verdict,
        opening,
        logging,
        ratePlan,
        notice,
        null,
        note,
        Validity.ALWAYS,
        Ownership.NONE);
  }

  /** A rule without a rate plan and without a notice. */
  public Rule(
      String id,
      String name,
      boolean enabled,
      Criterion<String> fromZones,
      Criterion<AddressItem> fromAddresses,
      Criterion<String> toZones,
      Criterion<AddressItem> toAddresses,
      Criterion<ServiceItem> services,
      Map<Coordinate, Criterion<String>> terms,
      Verdict verdict,
      Opening opening,
      Logging logging,
      String note) {
    this(
        id,
        name,
        enabled,
        fromZones,
        fromAddresses,
        toZones,
        toAddresses,
        services,
        terms,
        verdict,
        opening,
        logging,
        null,
        null,
        note);
  }

  /** A rule that asks for zones, addresses and services only, and leaves connections sealed. */
  public Rule(
      String id,
      String name,
      boolean enabled,
      Criterion<String> fromZones,
      Criterion<AddressItem> fromAddresses,
      Criterion<String> toZones,
      Criterion<AddressItem> toAddresses,
      Criterion<ServiceItem> services,
      Verdict verdict,
      Logging logging,
      String note) {
    this(
        id,
        name,
        enabled,
        fromZones,
        fromAddresses,
        toZones,
        toAddresses,
        services,
        Map.of(),
        verdict,
        Opening.SEALED,
        logging,
        note);
  }

  private static Map<Coordinate, Criterion<String>> narrowing(
      Map<Coordinate, Criterion<String>> terms) {
    if (terms.isEmpty()) {
      return Map.of();
    }
    Map<Coordinate, Criterion<String>> out = new EnumMap<>(Coordinate.class);
    terms.forEach(
        (coordinate, criterion) -> {
          if (!criterion.isAny()) {
            out.put(coordinate, criterion);
          }
        });
    return Collections.unmodifiableMap(out);
  }

  /** Whether it may decide connections: it is enabled, finished, and does not only observe. */
  public boolean isInForce() {
    return enabled && !unfinished && !observeOnly;
  }

  /** Whether it is enabled, finished and observes only. */
  public boolean isObserving() {
    return enabled && !unfinished && observeOnly;
  }

  /** The names that the rule asks of a coordinate, its days among them. */
  public List<String> mentioned(Coordinate coordinate) {
    List<String> names = term(coordinate).mentioned();
    if (coordinate == Coordinate.TIME) {
      validity.days().ifPresent(names::add);
    }
    return names;
  }

  /** The criterion on a coordinate. */
  public Criterion<String> term(Coordinate coordinate) {
    return terms.getOrDefault(coordinate, Criterion.any());
  }

  /** An enabled rule that matches everything, as a start to narrow from. */
  public static Rule matchingAll(String id, String name, Verdict verdict) {
    return new Rule(
        id,
        name,
        true,
        Criterion.any(),
        Criterion.any(),
        Criterion.any(),
        Criterion.any(),
        Criterion.any(),
        verdict,
        Logging.OFF,
        "");
  }

  /** A builder with the parts of this rule. */
  public RuleBuilder edit() {
    return new RuleBuilder(this);
  }

  /** The same rule with other ends and services. */
  public Rule matching(
      Criterion<String> fromZones,
      Criterion<AddressItem> fromAddresses,
      Criterion<String> toZones,
      Criterion<AddressItem> toAddresses,
      Criterion<ServiceItem> services) {
    return edit()
        .from(fromZones, fromAddresses)
        .to(toZones, toAddresses)
        .services(services)
        .build();
  }

  /** The same rule with other terms. */
  public Rule asking(Map<Coordinate, Criterion<String>> terms) {
    return edit().terms(terms).build();
  }

  public Rule enabled(boolean enabled) {
    return edit().enabled(enabled).build();
  }

  /** The same rule, leaving the encrypted connections that it decides sealed, or opening them. */
  public Rule leaving(Opening opening) {
    return edit().opening(opening).build();
  }

  /**
   * The same rule with another rate plan and another notice.
   *
   * @param ratePlan its name, or null
   * @param notice its name, or null
   */
  public Rule handled(String ratePlan, String notice) {
    return edit().ratePlan(ratePlan).notice(notice).build();
  }

  /** The same rule on other days. */
  public Rule valid(Validity validity) {
    return edit().validity(validity).build();
  }

  /** The same rule with another owner, ticket and tags. */
  public Rule owned(Ownership ownership) {
    return edit().ownership(ownership).build();
  }

  /** The same rule, finished or not; a rule with a criterion is always finished. */
  public Rule unfinished(boolean unfinished) {
    return edit().unfinished(unfinished).build();
  }

  /** The same rule, only observing or not. */
  public Rule observeOnly(boolean observeOnly) {
    return edit().observeOnly(observeOnly).build();
  }

  /** Whether the criteria of {@code other} are equal; other parts may differ. */
  public boolean matchesLike(Rule other) {
    return fromZones.equals(other.fromZones)
        && fromAddresses.equals(other.fromAddresses)
        && toZones.equals(other.toZones)
        && toAddresses.equals(other.toAddresses)
        && services.equals(other.services)
        && terms.equals(other.terms)
        && validity.equals(other.validity);
  }
}
