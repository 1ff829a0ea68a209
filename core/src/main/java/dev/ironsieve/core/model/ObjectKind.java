package dev.ironsieve.core.model;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;

/** The kinds of things that rules mean by name. */
public enum ObjectKind {
  ZONE,
  ADDRESS,
  SERVICE;

  public String word() {
    return name().toLowerCase(Locale.ROOT);
  }

  /** The names of this kind that {@code rule} mentions itself. */
  public List<String> namesIn(Rule rule) {
    List<String> out = new ArrayList<>();
    switch (this) {
      case ZONE -> {
        out.addAll(rule.fromZones().mentioned());
        out.addAll(rule.toZones().mentioned());
      }
      case ADDRESS -> {
        out.addAll(Rulebase.namesOfAddresses(rule.fromAddresses().mentioned()));
        out.addAll(Rulebase.namesOfAddresses(rule.toAddresses().mentioned()));
      }
      case SERVICE -> out.addAll(Rulebase.namesOfServices(rule.services().mentioned()));
    }
    return out;
  }
}
