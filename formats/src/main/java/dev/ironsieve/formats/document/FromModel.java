package dev.ironsieve.formats.document;

import dev.ironsieve.core.model.AddressObject;
import dev.ironsieve.core.model.ApplicationFact;
import dev.ironsieve.core.model.Breadth;
import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.Feed;
import dev.ironsieve.core.model.GatewaySettings;
import dev.ironsieve.core.model.Logging;
import dev.ironsieve.core.model.Notice;
import dev.ironsieve.core.model.ObjectKind;
import dev.ironsieve.core.model.Opening;
import dev.ironsieve.core.model.Rate;
import dev.ironsieve.core.model.RatePlan;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.RulebaseKind;
import dev.ironsieve.core.model.SavedCheck;
import dev.ironsieve.core.model.Section;
import dev.ironsieve.core.model.ServiceObject;
import dev.ironsieve.core.model.TermObject;
import dev.ironsieve.core.model.Vocabulary;
import dev.ironsieve.core.model.Zone;
import dev.ironsieve.core.rulebase.CommonRules;
import dev.ironsieve.core.rulebase.OwnParts;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.sets.IntSet;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;

/** Converts the model to documents. What says nothing (any, an empty note) is left out. */
public final class FromModel {
  private FromModel() {}

  public static RulebaseDocument rulebase(Rulebase rulebase) {
    OwnParts own = rulebase.own();
    return new RulebaseDocument(
        RulebaseDocument.VERSION,
        rulebase.name(),
        rulebase.kind() == RulebaseKind.TRAFFIC ? null : rulebase.kind().word(),
        rulebase.common().map(FromModel::common).orElse(null),
        own.zones().stream().map(FromModel::zone).toList(),
        own.addresses().stream().map(FromModel::address).toList(),
        own.services().stream().map(FromModel::service).toList(),
        some(terms(own.termObjects(), ObjectKind.HOST_LIST)),
        some(terms(own.termObjects(), ObjectKind.SCHEDULE)),
        some(terms(own.termObjects(), ObjectKind.DEVICE_STATE)),
        some(rulebase.pinned().stream().map(FromModel::vocabulary).toList()),
        some(rulebase.feeds().stream().map(FromModel::feed).toList()),
        some(own.ratePlans().stream().map(FromModel::ratePlan).toList()),
        some(own.notices().stream().map(FromModel::notice).toList()),
        text(rulebase.gatewaySettings().lineCapacity()),
        rulebase.gatewaySettings().timeZone().equals(GatewaySettings.UTC)
            ? null
            : rulebase.gatewaySettings().timeZone().getId(),
        rulebase.gatewaySettings().breadth().equals(Breadth.DEFAULT)
            ? null
            : breadth(rulebase.gatewaySettings().breadth()),
        some(rulebase.checks().stream().map(FromModel::check).toList()),
        own.sections().stream().map(FromModel::section).toList());
  }

  /** What a rulebase has from a common rulebase. */
  public static CommonDocument common(CommonRules common) {
    return new CommonDocument(
        common.rulebase(),
        common.revision(),
        some(common.head().stream().map(FromModel::section).toList()),
        some(common.tail().stream().map(FromModel::section).toList()),
        some(common.zones().stream().map(FromModel::zone).toList()),
        some(common.addresses().stream().map(FromModel::address).toList()),
        some(common.services().stream().map(FromModel::service).toList()),
        some(terms(common.termObjects(), ObjectKind.HOST_LIST)),
        some(terms(common.termObjects(), ObjectKind.SCHEDULE)),
        some(terms(common.termObjects(), ObjectKind.DEVICE_STATE)),
        some(common.ratePlans().stream().map(FromModel::ratePlan).toList()),
        some(common.notices().stream().map(FromModel::notice).toList()),
        common.above() == null ? null : common(common.above()));
  }

  public static BreadthDocument breadth(Breadth breadth) {
    return new BreadthDocument(
        breadth.counting().stream()
            .map(part -> part.name().toLowerCase(Locale.ROOT).replace('_', ' '))
            .toList(),
        breadth.addresses());
  }

  public static CheckDocument check(SavedCheck check) {
    return new CheckDocument(
        check.name(),
        check.connection(),
        check.expected().word(),
        check.rule(),
        check.protectedConnection() ? true : null,
        check.group().isEmpty() ? null : check.group(),
        some(check.tags()));
  }

  public static FeedDocument feed(Feed feed) {
    return new FeedDocument(
        feed.name(),
        feed.kind().word(),
        feed.edition(),
        feed.sets().stream()
            .map(set -> new FeedDocument.SetDocument(set.name(), set.members()))
            .toList());
  }

  public static RatePlanDocument ratePlan(RatePlan plan) {
    return new RatePlanDocument(
        plan.name(),
        text(plan.ceiling()),
        text(plan.floor()),
        plan.counted().word(),
        plan.mostAtOnce(),
        note(plan.note()));
  }

  public static NoticeDocument notice(Notice notice) {
    return new NoticeDocument(notice.name(), notice.heading(), notice.text());
  }

  private static String text(Rate rate) {
    return rate == null ? null : rate.toString();
  }

  public static SectionDocument section(Section section) {
    return new SectionDocument(
        section.id(),
        section.name(),
        section.rules().stream().map(FromModel::rule).toList(),
        section.tail() ? true : null);
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
        terms(rule),
        rule.verdict().word(),
        rule.opening() == Opening.SEALED ? null : rule.opening().word(),
        rule.logging() == Logging.OFF ? null : rule.logging().word(),
        rule.ratePlan(),
        rule.notice(),
        rule.hold(),
        note(rule.note()),
        rule.unfinished() ? true : null,
        rule.observeOnly() ? true : null,
        text(rule.validity().start()),
        text(rule.validity().end()),
        note(rule.ownership().owner()),
        note(rule.ownership().ticket()),
        rule.ownership().tags().isEmpty() ? null : rule.ownership().tags());
  }

  private static String text(LocalDate day) {
    return day == null ? null : day.toString();
  }

  private static Map<String, CriterionDocument> terms(Rule rule) {
    if (rule.terms().isEmpty()) {
      return null;
    }
    Map<String, CriterionDocument> out = new LinkedHashMap<>();
    rule.terms()
        .forEach((coordinate, criterion) -> out.put(coordinate.word(), criterion(criterion)));
    return out;
  }

  public static VocabularyDocument vocabulary(Vocabulary vocabulary) {
    List<VocabularyDocument.SetDocument> sets = new ArrayList<>();
    for (Vocabulary.Term term : vocabulary.terms()) {
      sets.add(new VocabularyDocument.SetDocument(term.name(), values(vocabulary, term.members())));
    }
    List<VocabularyDocument.FactDocument> applications = new ArrayList<>();
    for (ApplicationFact fact : vocabulary.applications()) {
      applications.add(
          new VocabularyDocument.FactDocument(
              fact.name(),
              values(vocabulary, fact.uses()),
              some(texts(fact.ports())),
              some(fact.hosts()),
              some(fact.needs()),
              some(fact.carries()),
              some(values(vocabulary, fact.openedOnly()))));
    }
    return new VocabularyDocument(
        vocabulary.coordinate().word(),
        vocabulary.edition(),
        vocabulary.values(),
        sets,
        some(applications));
  }

  private static List<String> values(Vocabulary vocabulary, IntSet numbers) {
    List<String> out = new ArrayList<>();
    numbers.forEach(value -> out.add(vocabulary.values().get(value)));
    return out;
  }

  /** Null for an empty list, which need not be written. */
  private static <T> List<T> some(List<T> list) {
    return list.isEmpty() ? null : list;
  }

  public static ObjectDocument zone(Zone zone) {
    return new ObjectDocument(zone.name(), texts(zone.networks()), note(zone.note()));
  }

  public static ObjectDocument address(AddressObject object) {
    return new ObjectDocument(object.name(), texts(object.members()), note(object.note()));
  }

  public static ObjectDocument terms(TermObject object) {
    return new ObjectDocument(object.name(), object.members(), note(object.note()));
  }

  /** The host lists, or the schedules. */
  public static List<ObjectDocument> terms(Rulebase rulebase, ObjectKind kind) {
    return terms(rulebase.termObjects(), kind);
  }

  private static List<ObjectDocument> terms(List<TermObject> objects, ObjectKind kind) {
    return objects.stream().filter(object -> object.kind() == kind).map(FromModel::terms).toList();
  }

  public static ObjectDocument service(ServiceObject object) {
    return new ObjectDocument(object.name(), texts(object.members()), note(object.note()));
  }

  private static CriterionDocument criterion(Criterion<?> criterion) {
    if (criterion.isAny()) {
      return null;
    }
    return new CriterionDocument(some(texts(criterion.items())), some(texts(criterion.except())));
  }

  private static List<String> texts(List<?> items) {
    return items.stream().map(Object::toString).toList();
  }

  private static String note(String note) {
    return note.isEmpty() ? null : note;
  }
}
