package dev.ironsieve.core.model;

/**
 * One rule: it holds for a connection for which every criterion holds.
 *
 * @param id stays the same for the rule's whole life, through renaming and moving
 * @param enabled a disabled rule is passed over
 */
public record Rule(
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
  public Rule {
    Names.checkId("rule", id);
    name = Names.checkTitle("rule", name);
    Names.checkNote(note);
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

  /** The same rule with other criteria. */
  public Rule matching(
      Criterion<String> fromZones,
      Criterion<AddressItem> fromAddresses,
      Criterion<String> toZones,
      Criterion<AddressItem> toAddresses,
      Criterion<ServiceItem> services) {
    return new Rule(
        id,
        name,
        enabled,
        fromZones,
        fromAddresses,
        toZones,
        toAddresses,
        services,
        verdict,
        logging,
        note);
  }

  public Rule enabled(boolean enabled) {
    return new Rule(
        id,
        name,
        enabled,
        fromZones,
        fromAddresses,
        toZones,
        toAddresses,
        services,
        verdict,
        logging,
        note);
  }

  /** Whether {@code other} matches by the same words, whatever else differs. */
  public boolean matchesLike(Rule other) {
    return fromZones.equals(other.fromZones)
        && fromAddresses.equals(other.fromAddresses)
        && toZones.equals(other.toZones)
        && toAddresses.equals(other.toAddresses)
        && services.equals(other.services);
  }
}
