package dev.ironsieve.formats.document;

import java.util.List;

/**
 * One criterion: alternatives, less exceptions. Left out, or without items, it stands for any.
 *
 * @param items names or literals
 * @param except names or literals that are taken out again
 */
public record CriterionDocument(List<String> items, List<String> except) {}
