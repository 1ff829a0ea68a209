package dev.ironsieve.formats.document;

import java.util.List;

/**
 * Rules under a heading.
 *
 * @param id made up from its place if left out
 */
public record SectionDocument(String id, String name, List<RuleDocument> rules) {}
