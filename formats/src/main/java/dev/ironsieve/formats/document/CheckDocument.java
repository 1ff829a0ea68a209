package dev.ironsieve.formats.document;

/**
 * A saved check.
 *
 * @param connection as a connection line says it
 * @param verdict that it must get
 * @param rule id of the rule that must decide; any if left out
 */
public record CheckDocument(String name, String connection, String verdict, String rule) {}
