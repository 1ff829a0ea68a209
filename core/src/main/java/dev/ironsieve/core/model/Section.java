package dev.ironsieve.core.model;

import java.util.List;

/**
 * Rules that stand together under a heading.
 *
 * @param tail whether they stand behind the rules of every rulebase below; only in a common
 *     rulebase
 */
public record Section(String id, String name, List<Rule> rules, boolean tail) {
  public Section {
    Names.checkId("section", id);
    name = Names.checkTitle("section", name);
    rules = List.copyOf(rules);
  }

  public Section(String id, String name, List<Rule> rules) {
    this(id, name, rules, false);
  }

  public Section with(List<Rule> others) {
    return new Section(id, name, others, tail);
  }

  public Section named(String other) {
    return new Section(id, other, rules, tail);
  }
}
