package dev.ironsieve.formats.document;

/**
 * The page that a person is shown by a rule.
 *
 * @param text in plain text
 */
public record NoticeDocument(String name, String heading, String text) {}
