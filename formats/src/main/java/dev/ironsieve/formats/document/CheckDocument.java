package dev.ironsieve.formats.document;

/**
 * A connection that is tried again after every change.
 *
 * @param connection as a connection line says it
 * @param verdict that it must get
 * @param rule id of the rule that must decide; any if left out
 */
public record CheckDocument(String name, String connection, String verdict, String rule) {}
