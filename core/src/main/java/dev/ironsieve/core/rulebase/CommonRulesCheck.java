package dev.ironsieve.core.rulebase;

import dev.ironsieve.core.model.AddressObject;
import dev.ironsieve.core.model.InvalidModel;
import dev.ironsieve.core.model.Names;
import dev.ironsieve.core.model.Notice;
import dev.ironsieve.core.model.RatePlan;
import dev.ironsieve.core.model.RulebaseKind;
import dev.ironsieve.core.model.Section;
import dev.ironsieve.core.model.ServiceObject;
import dev.ironsieve.core.model.TermObject;
import dev.ironsieve.core.model.Zone;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Function;

/**
 * Checks that the parts from a common rulebase are in a rulebase unchanged: only the common
 * rulebase itself changes them.
 */
final class CommonRulesCheck {
  private final CommonRules common;

  private CommonRulesCheck(CommonRules common) {
    this.common = common;
  }

  /** Checks sections and objects; O(size of both). */
  static void check(Rulebase rulebase) {
    checkSections(rulebase);
    if (rulebase.common().isEmpty()) {
      return;
    }
    CommonRulesCheck check = new CommonRulesCheck(rulebase.common().get());
    check.zones(rulebase.zones());
    check.same("address", rulebase.addresses(), CommonRules::addresses, AddressObject::name);
    check.same("service", rulebase.services(), CommonRules::services, ServiceObject::name);
    check.same(
        "object",
        rulebase.termObjects(),
        CommonRules::termObjects,
        (TermObject object) -> object.kind().word() + " " + object.name());
    check.same(
        "rate plan",
        rulebase.gatewaySettings().ratePlans(),
        CommonRules::ratePlans,
        RatePlan::name);
    check.same("notice", rulebase.gatewaySettings().notices(), CommonRules::notices, Notice::name);
  }

  /**
   * Checks the order of sections: head sections of the common rulebase, own sections, tail sections
   * of the common rulebase. The own sections of a common rulebase are head sections and then tail
   * sections; a rulebase of another kind has no own tail sections.
   */
  static void checkSections(Rulebase rulebase) {
    List<Section> sections = rulebase.sections();
    List<Section> head = rulebase.common().map(CommonRules::allHead).orElse(List.of());
    List<Section> tail = rulebase.common().map(CommonRules::allTail).orElse(List.of());
    int end = sections.size() - tail.size();
    if (end < head.size()
        || !sections.subList(0, head.size()).equals(head)
        || !sections.subList(end, sections.size()).equals(tail)) {
      throw refusal(rulebase.common().get(), firstOther(sections, head, tail));
    }
    boolean inTail = false;
    for (Section section : sections.subList(head.size(), end)) {
      if (section.tail() && rulebase.kind() != RulebaseKind.COMMON) {
        throw new InvalidModel(
            "section \"" + section.name() + "\"",
            "tail sections in a common rulebase only",
            "one in a rulebase of kind " + rulebase.kind().word());
      }
      if (inTail && !section.tail()) {
        throw new InvalidModel(
            "section \"" + section.name() + "\"",
            "head sections above all tail sections",
            "one below a tail section");
      }
      inTail = section.tail();
    }
  }

  private static String firstOther(List<Section> sections, List<Section> head, List<Section> tail) {
    for (Section section : head) {
      if (!sections.contains(section)) {
        return "section \"" + section.name() + "\"";
      }
    }
    return tail.stream()
        .filter(section -> !sections.contains(section))
        .map(section -> "section \"" + section.name() + "\"")
        .findFirst()
        .orElse("the order of sections");
  }

  private static InvalidModel refusal(CommonRules common, String place) {
    return new InvalidModel(
        place,
        "no change of what is from the common rulebase \""
            + common.rulebase()
            + "\"; change it there",
        "a change");
  }

  private void zones(List<Zone> whole) {
    Map<String, Zone> byName = byName(whole, Zone::name);
    for (Zone zone : common.all(CommonRules::zones)) {
      if (!byName.containsKey(Names.key(zone.name()))) {
        throw refusal(common, "zone \"" + zone.name() + "\"");
      }
    }
  }

  private <T> void same(
      String kind, List<T> whole, Function<CommonRules, List<T>> part, Function<T, String> nameOf) {
    List<T> needed = common.all(part);
    if (needed.isEmpty()) {
      return;
    }
    Map<String, T> byName = byName(whole, nameOf);
    for (T one : needed) {
      if (!one.equals(byName.get(Names.key(nameOf.apply(one))))) {
        throw refusal(common, kind + " \"" + nameOf.apply(one) + "\"");
      }
    }
  }

  private static <T> Map<String, T> byName(List<T> whole, Function<T, String> nameOf) {
    Map<String, T> out = new HashMap<>();
    whole.forEach(one -> out.put(Names.key(nameOf.apply(one)), one));
    return out;
  }
}
