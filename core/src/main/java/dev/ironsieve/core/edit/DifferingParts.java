package dev.ironsieve.core.edit;

import dev.ironsieve.core.model.AddressObject;
import dev.ironsieve.core.model.Names;
import dev.ironsieve.core.model.Notice;
import dev.ironsieve.core.model.ObjectKind;
import dev.ironsieve.core.model.RatePlan;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Section;
import dev.ironsieve.core.model.ServiceObject;
import dev.ironsieve.core.model.Vocabulary;
import dev.ironsieve.core.model.Zone;
import dev.ironsieve.core.rulebase.Rulebase;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.function.Function;

/** The parts in which two states of a rulebase differ; O(size of both). */
final class DifferingParts {
  private final Set<Touched> out = new LinkedHashSet<>();

  private DifferingParts() {}

  /** Rules that stand elsewhere are among them; if some do, all rules that are in both. */
  static Set<Touched> of(Rulebase before, Rulebase after) {
    DifferingParts parts = new DifferingParts();
    parts.addRules(before, after);
    parts.addOrdered(
        Touched.SECTION, before.sections(), after.sections(), Section::id, Section::name);
    parts.addObjects(before, after);
    parts.addOrdered(
        Touched.CHECK, before.checks(), after.checks(), check -> Names.key(check.name()), c -> c);
    parts.add(
        Touched.VOCABULARY,
        before.pinned(),
        after.pinned(),
        vocabulary -> vocabulary.coordinate().word(),
        Vocabulary::edition);
    parts.add(Touched.FEED, before.feeds(), after.feeds(), feed -> Names.key(feed.name()), f -> f);
    parts.addSettings(before, after);
    return parts.out;
  }

  /**
   * @param compared what has to be equal
   */
  private <T> void add(
      String kind,
      List<T> before,
      List<T> after,
      Function<T, String> keyOf,
      Function<T, Object> compared) {
    Map<String, Object> was = new HashMap<>();
    before.forEach(one -> was.put(keyOf.apply(one), compared.apply(one)));
    for (T one : after) {
      String key = keyOf.apply(one);
      if (!compared.apply(one).equals(was.remove(key))) {
        out.add(new Touched(kind, key));
      }
    }
    was.keySet().forEach(key -> out.add(new Touched(kind, key)));
  }

  /** Adds also what is in both, if it stands in another order. */
  private <T> void addOrdered(
      String kind,
      List<T> before,
      List<T> after,
      Function<T, String> keyOf,
      Function<T, Object> compared) {
    add(kind, before, after, keyOf, compared);
    Set<String> was = new LinkedHashSet<>(before.stream().map(keyOf).toList());
    Set<String> is = new LinkedHashSet<>(after.stream().map(keyOf).toList());
    was.retainAll(is);
    is.retainAll(was);
    if (!List.copyOf(was).equals(List.copyOf(is))) {
      is.forEach(key -> out.add(new Touched(kind, key)));
    }
  }

  private void addRules(Rulebase before, Rulebase after) {
    addOrdered(Touched.RULE, before.rules(), after.rules(), Rule::id, rule -> rule);
    Map<String, String> was = sectionByRule(before);
    sectionByRule(after)
        .forEach(
            (rule, section) -> {
              if (!section.equals(was.getOrDefault(rule, section))) {
                out.add(new Touched(Touched.RULE, rule));
              }
            });
  }

  private static Map<String, String> sectionByRule(Rulebase rulebase) {
    Map<String, String> out = new HashMap<>();
    for (Section section : rulebase.sections()) {
      section.rules().forEach(rule -> out.put(rule.id(), section.id()));
    }
    return out;
  }

  private void addObjects(Rulebase before, Rulebase after) {
    addNamed(ObjectKind.ZONE, before.zones(), after.zones(), Zone::name);
    addNamed(ObjectKind.ADDRESS, before.addresses(), after.addresses(), AddressObject::name);
    addNamed(ObjectKind.SERVICE, before.services(), after.services(), ServiceObject::name);
    for (ObjectKind kind :
        List.of(ObjectKind.HOST_LIST, ObjectKind.SCHEDULE, ObjectKind.DEVICE_STATE)) {
      addNamed(kind, before.termObjects(kind), after.termObjects(kind), object -> object.name());
    }
    addNamed(
        ObjectKind.RATE_PLAN,
        before.gatewaySettings().ratePlans(),
        after.gatewaySettings().ratePlans(),
        RatePlan::name);
    addNamed(
        ObjectKind.NOTICE,
        before.gatewaySettings().notices(),
        after.gatewaySettings().notices(),
        Notice::name);
  }

  private <T> void addNamed(
      ObjectKind kind, List<T> before, List<T> after, Function<T, String> nameOf) {
    add(kind.word(), before, after, one -> Names.key(nameOf.apply(one)), one -> one);
  }

  private void addSettings(Rulebase before, Rulebase after) {
    addIfOther(
        Touched.LINE,
        "capacity",
        before.gatewaySettings().lineCapacity(),
        after.gatewaySettings().lineCapacity());
    addIfOther(
        Touched.CLOCK,
        "time zone",
        before.gatewaySettings().timeZone(),
        after.gatewaySettings().timeZone());
    addIfOther(
        Touched.SETTINGS,
        "too broad",
        before.gatewaySettings().breadth(),
        after.gatewaySettings().breadth());
  }

  private void addIfOther(String kind, String key, Object before, Object after) {
    if (!Objects.equals(before, after)) {
      out.add(new Touched(kind, key));
    }
  }
}
