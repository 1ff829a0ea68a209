package dev.ironsieve.formats.document;

import com.fasterxml.jackson.annotation.JsonProperty;

/**
 * A saved check.
 *
 * @param connection as a connection line says it
 * @param verdict that it must get
 * @param rule id of the rule that must decide; any if left out
 * @param protectedConnection whether it has to be let through also while the directory is away;
 *     false if left out
 */
public record CheckDocument(
    String name,
    String connection,
    String verdict,
    String rule,
    @JsonProperty("protected") Boolean protectedConnection) {}
