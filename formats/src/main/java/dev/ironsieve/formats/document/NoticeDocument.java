package dev.ironsieve.formats.document;

/**
 * A notice: the page that a rule shows to a person.
 *
 * @param text in plain text
 */
public record NoticeDocument(String name, String heading, String text) {}
