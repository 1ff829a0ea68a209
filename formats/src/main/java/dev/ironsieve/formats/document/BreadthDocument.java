package dev.ironsieve.formats.document;

import java.util.List;

/**
 * The settings of the finding "too broad".
 *
 * @param counting what excuses a rule that narrows it: {@code people}, {@code applications}, {@code
 *     sites}, {@code services}, {@code devices}, {@code times}, {@code file kinds}; the first four
 *     if left out
 * @param addresses fewest addresses that both its ends have to have; 1 if left out
 */
public record BreadthDocument(List<String> counting, Long addresses) {}
