package dev.ironsieve.formats.document;

import java.util.List;
import java.util.Map;

/**
 * One rule.
 *
 * @param id stays with the rule for its life; made up from its place if left out
 * @param enabled true if left out
 * @param terms what else is asked, by coordinate: {@code person}, {@code device}, {@code site},
 *     {@code application}, {@code file kind}, {@code time}
 * @param verdict {@code allow}, {@code drop}, {@code reject} or {@code caution}
 * @param opening {@code sealed} (if left out) or {@code opened}
 * @param log {@code off} (if left out), {@code start}, {@code end} or {@code both}
 * @param ratePlan name of a rate plan; none if left out
 * @param notice name of a notice; none if left out
 * @param note empty if left out
 * @param unfinished true for a new rule that asks for nothing yet, and so decides nothing; false if
 *     left out
 * @param observeOnly true for a rule that decides nothing, while gateways count and log what it
 *     would decide; false if left out
 * @param hold minutes for which whoever it decides about is refused everything; none if left out
 * @param start first day on which it may decide, as in {@code 2026-12-24}; any if left out
 * @param end last day on which it may decide; any if left out
 * @param owner who answers for it; nobody if left out
 * @param ticket the request that it was made for; none if left out
 * @param tags words to find it by; none if left out
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
    Map<String, CriterionDocument> terms,
    String verdict,
    String opening,
    String log,
    String ratePlan,
    String notice,
    Integer hold,
    String note,
    Boolean unfinished,
    Boolean observeOnly,
    String start,
    String end,
    String owner,
    String ticket,
    List<String> tags) {}
