package dev.ironsieve.formats.document;

import com.fasterxml.jackson.annotation.JsonProperty;
import java.util.List;

/**
 * A saved check.
 *
 * @param connection as a connection line says it, or {@code all} and the clauses of a reach
 *     question, whose connections all have to get the verdict
 * @param verdict that it must get
 * @param rule id of the rule that must decide; any if left out
 * @param protectedConnection whether it has to be let through also while the directory is away;
 *     false if left out
 * @param group the heading under which it stands; none if left out
 * @param tags words to find it by
 */
public record CheckDocument(
    String name,
    String connection,
    String verdict,
    String rule,
    @JsonProperty("protected") Boolean protectedConnection,
    String group,
    List<String> tags) {}
