package dev.ironsieve.core.edit;

/** A place in the order, given relative to a rule or a section. */
public sealed interface Place {
  /** Directly above the rule with this id. */
  record Above(String ruleId) implements Place {}

  /** Directly below the rule with this id. */
  record Below(String ruleId) implements Place {}

  /** Before the first rule of the section. */
  record StartOf(String sectionId) implements Place {}

  /** Behind the last rule of the section. */
  record EndOf(String sectionId) implements Place {}
}
