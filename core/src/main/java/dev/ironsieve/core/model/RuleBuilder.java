package dev.ironsieve.core.model;

import java.util.Map;

/** Builds a rule from the parts of another; {@link #build} checks the result. */
public final class RuleBuilder {
  private String id;
  private final String name;
  private boolean enabled;
  private boolean unfinished;
  private boolean observeOnly;
  private Criterion<String> fromZones;
  private Criterion<AddressItem> fromAddresses;
  private Criterion<String> toZones;
  private Criterion<AddressItem> toAddresses;
  private Criterion<ServiceItem> services;
  private Map<Coordinate, Criterion<String>> terms;
  private Verdict verdict;
  private Opening opening;
  private Logging logging;
  private String ratePlan;
  private String notice;
  private Integer hold;
  private String note;
  private Validity validity;
  private Ownership ownership;

  RuleBuilder(Rule rule) {
    id = rule.id();
    name = rule.name();
    enabled = rule.enabled();
    unfinished = rule.unfinished();
    observeOnly = rule.observeOnly();
    fromZones = rule.fromZones();
    fromAddresses = rule.fromAddresses();
    toZones = rule.toZones();
    toAddresses = rule.toAddresses();
    services = rule.services();
    terms = rule.terms();
    verdict = rule.verdict();
    opening = rule.opening();
    logging = rule.logging();
    ratePlan = rule.ratePlan();
    notice = rule.notice();
    hold = rule.hold();
    note = rule.note();
    validity = rule.validity();
    ownership = rule.ownership();
  }

  /** The id: the result is another rule. */
  public RuleBuilder id(String value) {
    id = value;
    return this;
  }

  /** The source zones and addresses. */
  public RuleBuilder from(Criterion<String> zones, Criterion<AddressItem> addresses) {
    fromZones = zones;
    fromAddresses = addresses;
    return this;
  }

  /** The destination zones and addresses. */
  public RuleBuilder to(Criterion<String> zones, Criterion<AddressItem> addresses) {
    toZones = zones;
    toAddresses = addresses;
    return this;
  }

  public RuleBuilder enabled(boolean value) {
    enabled = value;
    return this;
  }

  public RuleBuilder unfinished(boolean value) {
    unfinished = value;
    return this;
  }

  /** Whether it only observes. */
  public RuleBuilder observeOnly(boolean value) {
    observeOnly = value;
    return this;
  }

  public RuleBuilder services(Criterion<ServiceItem> value) {
    services = value;
    return this;
  }

  public RuleBuilder terms(Map<Coordinate, Criterion<String>> value) {
    terms = value;
    return this;
  }

  public RuleBuilder verdict(Verdict value) {
    verdict = value;
    return this;
  }

  public RuleBuilder opening(Opening value) {
    opening = value;
    return this;
  }

  public RuleBuilder logging(Logging value) {
    logging = value;
    return this;
  }

  public RuleBuilder ratePlan(String value) {
    ratePlan = value;
    return this;
  }

  public RuleBuilder notice(String value) {
    notice = value;
    return this;
  }

  /** Minutes for which whoever it decides about is refused everything; null for none. */
  public RuleBuilder hold(Integer value) {
    hold = value;
    return this;
  }

  public RuleBuilder note(String value) {
    note = value;
    return this;
  }

  public RuleBuilder validity(Validity value) {
    validity = value;
    return this;
  }

  public RuleBuilder ownership(Ownership value) {
    ownership = value;
    return this;
  }

  /**
   * The rule.
   *
   * @throws InvalidModel if a part is not valid
   */
  public Rule build() {
    return new Rule(
        id,
        name,
        enabled,
        unfinished,
        observeOnly,
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
        hold,
        note,
        validity,
        ownership);
  }
}
