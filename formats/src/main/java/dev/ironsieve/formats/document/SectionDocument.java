package dev.ironsieve.formats.document;

import com.fasterxml.jackson.annotation.JsonInclude;
import java.util.List;

/**
 * Rules under a heading.
 *
 * @param id made up from its place if left out
 * @param tail whether they stand behind the rules of the rulebases below; false if left out
 */
@JsonInclude(JsonInclude.Include.NON_NULL)
public record SectionDocument(String id, String name, List<RuleDocument> rules, Boolean tail) {}
