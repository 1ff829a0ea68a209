package dev.ironsieve.formats.document;

import dev.ironsieve.core.model.AddressObject;
import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.Logging;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Rulebase;
import dev.ironsieve.core.model.Section;
import dev.ironsieve.core.model.ServiceObject;
import dev.ironsieve.core.model.Zone;
import java.util.List;

/** From the model to documents. What says nothing (any, an empty note) is left out. */
public final class FromModel {
  private FromModel() {}

  public static RulebaseDocument rulebase(Rulebase rulebase) {
    return new RulebaseDocument(
        RulebaseDocument.VERSION,
        rulebase.name(),
        rulebase.zones().stream().map(FromModel::zone).toList(),
        rulebase.addresses().stream().map(FromModel::address).toList(),
        rulebase.services().stream().map(FromModel::service).toList(),
        rulebase.sections().stream().map(FromModel::section).toList());
  }

  public static SectionDocument section(Section section) {
    return new SectionDocument(
        section.id(), section.name(), section.rules().stream().map(FromModel::rule).toList());
  }

  public static RuleDocument rule(Rule rule) {
    return new RuleDocument(
        rule.id(),
        rule.name(),
        rule.enabled(),
        criterion(rule.fromZones()),
        criterion(rule.fromAddresses()),
        criterion(rule.toZones()),
        criterion(rule.toAddresses()),
        criterion(rule.services()),
        rule.verdict().word(),
        rule.logging() == Logging.OFF ? null : rule.logging().word(),
        note(rule.note()));
  }

  public static ObjectDocument zone(Zone zone) {
    return new ObjectDocument(zone.name(), texts(zone.networks()), note(zone.note()));
  }

  public static ObjectDocument address(AddressObject object) {
    return new ObjectDocument(object.name(), texts(object.members()), note(object.note()));
  }

  public static ObjectDocument service(ServiceObject object) {
    return new ObjectDocument(object.name(), texts(object.members()), note(object.note()));
  }

  private static CriterionDocument criterion(Criterion<?> criterion) {
    if (criterion.isAny()) {
      return null;
    }
    return new CriterionDocument(
        criterion.items().isEmpty() ? null : texts(criterion.items()),
        criterion.except().isEmpty() ? null : texts(criterion.except()));
  }

  private static List<String> texts(List<?> items) {
    return items.stream().map(Object::toString).toList();
  }

  private static String note(String note) {
    return note.isEmpty() ? null : note;
  }
}
