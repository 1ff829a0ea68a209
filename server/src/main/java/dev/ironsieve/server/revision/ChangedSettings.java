package dev.ironsieve.server.revision;

import dev.ironsieve.core.model.RatePlan;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.server.revision.ReviewDocument.ChangedSetting;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.TreeSet;

/** Lists the settings that two states of a rulebase differ in, besides verdicts. */
final class ChangedSettings {
  private static final String NONE = "none";

  private final List<ChangedSetting> out = new ArrayList<>();

  private ChangedSettings() {}

  /** In the order of the rules of the later state, then of the names of rate plans. */
  static List<ChangedSetting> of(Rulebase before, Rulebase after) {
    ChangedSettings found = new ChangedSettings();
    Map<String, Rule> old = new HashMap<>();
    before.rules().forEach(rule -> old.put(rule.id(), rule));
    for (Rule rule : after.rules()) {
      if (old.containsKey(rule.id())) {
        found.compare(old.get(rule.id()), rule);
      }
    }
    found.ratePlans(before, after);
    return List.copyOf(found.out);
  }

  private void compare(Rule was, Rule is) {
    add(is, "log", was.logging().word(), is.logging().word());
    add(is, "opening", was.opening().word(), is.opening().word());
    add(is, "rate plan", orNone(was.ratePlan()), orNone(is.ratePlan()));
    add(is, "notice", orNone(was.notice()), orNone(is.notice()));
    add(is, "hold", hold(was), hold(is));
    add(is, "state", state(was), state(is));
  }

  private void add(Rule rule, String setting, String before, String after) {
    if (!before.equals(after)) {
      out.add(new ChangedSetting(rule.name(), rule.id(), setting, before, after));
    }
  }

  private static String orNone(String name) {
    return name == null ? NONE : name;
  }

  private static String hold(Rule rule) {
    return rule.hold() == null ? NONE : rule.hold() + " min";
  }

  private static String state(Rule rule) {
    return !rule.enabled()
        ? "disabled"
        : rule.unfinished() ? "unfinished" : rule.observeOnly() ? "observe only" : "enabled";
  }

  private void ratePlans(Rulebase before, Rulebase after) {
    Map<String, String> old = texts(before);
    Map<String, String> now = texts(after);
    TreeSet<String> names = new TreeSet<>(old.keySet());
    names.addAll(now.keySet());
    for (String name : names) {
      if (!Objects.equals(old.get(name), now.get(name))) {
        out.add(
            new ChangedSetting(
                name, null, "definition", orNone(old.get(name)), orNone(now.get(name))));
      }
    }
  }

  private static Map<String, String> texts(Rulebase rulebase) {
    Map<String, String> out = new HashMap<>();
    for (RatePlan plan : rulebase.gatewaySettings().ratePlans()) {
      List<String> parts = new ArrayList<>();
      if (plan.ceiling() != null) {
        parts.add("at most " + plan.ceiling());
      }
      if (plan.floor() != null) {
        parts.add("at least " + plan.floor());
      }
      parts.add("for " + plan.counted().word());
      out.put(plan.name(), String.join(", ", parts));
    }
    return out;
  }
}
