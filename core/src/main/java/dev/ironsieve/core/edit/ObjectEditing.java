package dev.ironsieve.core.edit;

import dev.ironsieve.core.model.AddressItem;
import dev.ironsieve.core.model.AddressObject;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.InvalidModel;
import dev.ironsieve.core.model.Names;
import dev.ironsieve.core.model.Notice;
import dev.ironsieve.core.model.ObjectKind;
import dev.ironsieve.core.model.RatePlan;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Section;
import dev.ironsieve.core.model.ServiceItem;
import dev.ironsieve.core.model.ServiceObject;
import dev.ironsieve.core.model.TermObject;
import dev.ironsieve.core.model.Zone;
import dev.ironsieve.core.rulebase.Rulebase;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import java.util.function.UnaryOperator;

/** Creates, changes and renames zones and objects. A new name goes wherever the old one stood. */
final class ObjectEditing {
  private ObjectEditing() {}

  static Rulebase put(Rulebase before, Edit.PutZone put) {
    List<Zone> zones =
        placed(ObjectKind.ZONE.word(), before.zones(), Zone::name, put.zone(), put.replaces());
    UnaryOperator<String> rename = renaming(put.replaces(), put.zone().name());
    UnaryOperator<Rule> inRule =
        rule ->
            rule.matching(
                rule.fromZones().map(rename),
                rule.fromAddresses(),
                rule.toZones().map(rename),
                rule.toAddresses(),
                rule.services());
    Rulebase after =
        before.with(
            zones,
            before.addresses(),
            before.services(),
            inRules(before, inRule, put.replaces(), put.zone().name()));
    return CheckEditing.renaming(before, after, rename, inRule);
  }

  static Rulebase put(Rulebase before, Edit.PutAddress put) {
    UnaryOperator<String> names = renaming(put.replaces(), put.address().name());
    UnaryOperator<AddressItem> rename =
        item ->
            item instanceof AddressItem.Named named
                ? new AddressItem.Named(names.apply(named.name()))
                : item;
    List<AddressObject> addresses =
        placed(
                ObjectKind.ADDRESS.word(),
                before.addresses(),
                AddressObject::name,
                put.address(),
                put.replaces())
            .stream()
            .map(
                o ->
                    new AddressObject(
                        o.name(), o.members().stream().map(rename).toList(), o.note()))
            .toList();
    UnaryOperator<Rule> inRule =
        rule ->
            rule.matching(
                rule.fromZones(),
                rule.fromAddresses().map(rename),
                rule.toZones(),
                rule.toAddresses().map(rename),
                rule.services());
    Rulebase after =
        before.with(
            before.zones(),
            addresses,
            before.services(),
            inRules(before, inRule, put.replaces(), put.address().name()));
    return CheckEditing.renaming(before, after, UnaryOperator.identity(), inRule);
  }

  static Rulebase put(Rulebase before, Edit.PutService put) {
    UnaryOperator<String> names = renaming(put.replaces(), put.service().name());
    UnaryOperator<ServiceItem> rename =
        item ->
            item instanceof ServiceItem.Named named
                ? new ServiceItem.Named(names.apply(named.name()))
                : item;
    List<ServiceObject> services =
        placed(
                ObjectKind.SERVICE.word(),
                before.services(),
                ServiceObject::name,
                put.service(),
                put.replaces())
            .stream()
            .map(
                o ->
                    new ServiceObject(
                        o.name(), o.members().stream().map(rename).toList(), o.note()))
            .toList();
    UnaryOperator<Rule> inRule =
        rule ->
            rule.matching(
                rule.fromZones(),
                rule.fromAddresses(),
                rule.toZones(),
                rule.toAddresses(),
                rule.services().map(rename));
    Rulebase after =
        before.with(
            before.zones(),
            before.addresses(),
            services,
            inRules(before, inRule, put.replaces(), put.service().name()));
    return CheckEditing.renaming(before, after, UnaryOperator.identity(), inRule);
  }

  static Rulebase put(Rulebase before, Edit.PutTerms put) {
    ObjectKind kind = put.object().kind();
    UnaryOperator<String> rename = renaming(put.replaces(), put.object().name());
    List<TermObject> objects =
        new ArrayList<>(
            before.termObjects().stream().filter(object -> object.kind() != kind).toList());
    objects.addAll(
        placed(
            kind.word(), before.termObjects(kind), TermObject::name, put.object(), put.replaces()));
    UnaryOperator<Rule> inRule =
        rule -> {
          Map<Coordinate, Criterion<String>> terms = new EnumMap<>(Coordinate.class);
          terms.putAll(rule.terms());
          terms.computeIfPresent(kind.coordinate(), (c, asked) -> asked.map(rename));
          return rule.asking(terms);
        };
    Rulebase after =
        before.withTermObjects(
            objects, inRules(before, inRule, put.replaces(), put.object().name()));
    return CheckEditing.renaming(before, after, UnaryOperator.identity(), inRule);
  }

  static Rulebase put(Rulebase before, Edit.PutRatePlan put) {
    UnaryOperator<String> rename = renaming(put.replaces(), put.plan().name());
    List<RatePlan> plans =
        placed(
            ObjectKind.RATE_PLAN.word(),
            before.gatewaySettings().ratePlans(),
            RatePlan::name,
            put.plan(),
            put.replaces());
    return before.withGatewaySettings(
        before.gatewaySettings().withRatePlans(plans),
        inRules(
            before,
            rule ->
                rule.ratePlan() == null
                    ? rule
                    : rule.handled(rename.apply(rule.ratePlan()), rule.notice()),
            put.replaces(),
            put.plan().name()));
  }

  static Rulebase put(Rulebase before, Edit.PutNotice put) {
    UnaryOperator<String> rename = renaming(put.replaces(), put.notice().name());
    List<Notice> notices =
        placed(
            ObjectKind.NOTICE.word(),
            before.gatewaySettings().notices(),
            Notice::name,
            put.notice(),
            put.replaces());
    return before.withGatewaySettings(
        before.gatewaySettings().withNotices(notices),
        inRules(
            before,
            rule ->
                rule.notice() == null
                    ? rule
                    : rule.handled(rule.ratePlan(), rename.apply(rule.notice())),
            put.replaces(),
            put.notice().name()));
  }

  /** Without an object, which no rule may mention. */
  static Rulebase without(Rulebase before, ObjectKind kind, String key) {
    return switch (kind) {
      case ZONE ->
          before.with(
              others(before.zones(), Zone::name, key),
              before.addresses(),
              before.services(),
              before.sections());
      case ADDRESS ->
          before.with(
              before.zones(),
              others(before.addresses(), AddressObject::name, key),
              before.services(),
              before.sections());
      case SERVICE ->
          before.with(
              before.zones(),
              before.addresses(),
              others(before.services(), ServiceObject::name, key),
              before.sections());
      case HOST_LIST, SCHEDULE, DEVICE_STATE ->
          before.withTermObjects(
              before.termObjects().stream()
                  .filter(o -> o.kind() != kind || !Names.key(o.name()).equals(key))
                  .toList(),
              before.sections());
      case RATE_PLAN ->
          before.withGatewaySettings(
              before
                  .gatewaySettings()
                  .withRatePlans(others(before.gatewaySettings().ratePlans(), RatePlan::name, key)),
              before.sections());
      case NOTICE ->
          before.withGatewaySettings(
              before
                  .gatewaySettings()
                  .withNotices(others(before.gatewaySettings().notices(), Notice::name, key)),
              before.sections());
    };
  }

  private static <T> List<T> others(List<T> objects, Function<T, String> nameOf, String key) {
    return objects.stream().filter(o -> !Names.key(nameOf.apply(o)).equals(key)).toList();
  }

  private static List<Section> inRules(
      Rulebase before, UnaryOperator<Rule> change, String replaces, String name) {
    boolean renamed = replaces != null && !replaces.equals(name);
    return renamed ? Editing.mapRules(before, change) : before.sections();
  }

  private static UnaryOperator<String> renaming(String from, String to) {
    String key = from == null ? null : Names.key(from);
    return name -> Names.key(name).equals(key) ? to : name;
  }

  /**
   * A list with one more named thing, or with one in the place of another.
   *
   * @param kind what the things are, in words
   */
  static <T> List<T> placed(
      String kind, List<T> objects, Function<T, String> nameOf, T object, String replaces) {
    List<T> out = new ArrayList<>(objects);
    if (replaces == null) {
      for (T other : objects) {
        if (Names.key(nameOf.apply(other)).equals(Names.key(nameOf.apply(object)))) {
          String name = nameOf.apply(object);
          throw new InvalidModel(kind + " name", "a name not in use", '"' + name + '"');
        }
      }
      out.add(object);
      return out;
    }
    for (int i = 0; i < out.size(); i++) {
      if (Names.key(nameOf.apply(out.get(i))).equals(Names.key(replaces))) {
        out.set(i, object);
        return out;
      }
    }
    throw new MissingTarget(kind, replaces);
  }
}
