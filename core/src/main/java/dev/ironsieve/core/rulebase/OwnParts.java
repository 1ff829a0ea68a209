package dev.ironsieve.core.rulebase;

import dev.ironsieve.core.model.AddressObject;
import dev.ironsieve.core.model.Notice;
import dev.ironsieve.core.model.RatePlan;
import dev.ironsieve.core.model.Section;
import dev.ironsieve.core.model.ServiceObject;
import dev.ironsieve.core.model.TermObject;
import dev.ironsieve.core.model.Zone;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.function.Function;

/** The parts of a rulebase that are not from a common rulebase. */
public record OwnParts(
    List<Section> sections,
    List<Zone> zones,
    List<AddressObject> addresses,
    List<ServiceObject> services,
    List<TermObject> termObjects,
    List<RatePlan> ratePlans,
    List<Notice> notices) {

  static OwnParts of(RulebaseBuilder whole) {
    CommonRules common = whole.common;
    return new OwnParts(
        common == null
            ? whole.sections
            : whole.sections.stream().filter(one -> common.originOf(one).isEmpty()).toList(),
        without(whole.zones, common, CommonRules::zones),
        without(whole.addresses, common, CommonRules::addresses),
        without(whole.services, common, CommonRules::services),
        without(whole.termObjects, common, CommonRules::termObjects),
        without(whole.gatewaySettings.ratePlans(), common, CommonRules::ratePlans),
        without(whole.gatewaySettings.notices(), common, CommonRules::notices));
  }

  private static <T> List<T> without(
      List<T> whole, CommonRules common, Function<CommonRules, List<T>> kind) {
    if (common == null) {
      return whole;
    }
    Set<T> others = new HashSet<>(common.all(kind));
    return whole.stream().filter(one -> !others.contains(one)).toList();
  }
}
