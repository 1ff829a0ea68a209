package dev.ironsieve.core.model;

import java.util.List;

/** Rules that stand together under a heading. */
public record Section(String id, String name, List<Rule> rules) {
  public Section {
    Names.checkId("section", id);
    name = Names.checkTitle("section", name);
    rules = List.copyOf(rules);
  }
}
