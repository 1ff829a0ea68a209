package dev.ironsieve.formats.document;

/**
 * One rule.
 *
 * @param id stays with the rule for its life; made up from its place if left out
 * @param enabled true if left out
 * @param verdict {@code allow}, {@code drop}, {@code reject} or {@code caution}
 * @param log {@code off} (if left out), {@code start}, {@code end} or {@code both}
 * @param note empty if left out
 */
public record RuleDocument(
    String id,
    String name,
    Boolean enabled,
    CriterionDocument fromZones,
    CriterionDocument fromAddresses,
    CriterionDocument toZones,
    CriterionDocument toAddresses,
    CriterionDocument services,
    String verdict,
    String log,
    String note) {}
