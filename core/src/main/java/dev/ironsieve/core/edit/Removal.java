package dev.ironsieve.core.edit;

import dev.ironsieve.core.model.AddressItem;
import dev.ironsieve.core.model.AddressObject;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.InvalidModel;
import dev.ironsieve.core.model.Names;
import dev.ironsieve.core.model.ObjectKind;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.ServiceItem;
import dev.ironsieve.core.model.ServiceObject;
import dev.ironsieve.core.rulebase.Rulebase;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.function.Predicate;

/**
 * Taking away an object that is in use: groups and rules lose it first. A rule that would ask for
 * anything where it asked for the object alone is disabled, since it would match what nobody meant.
 *
 * @param losses what groups and rules lose, before it is deleted
 * @param deletion of the object itself
 * @param changes the rules that it changes, in their order
 */
public record Removal(List<Edit> losses, Edit deletion, List<Change> changes) {
  /** One rule. */
  public record Change(Rule before, Rule after) {}

  /**
   * O(size of the rulebase).
   *
   * @throws InvalidModel if a group would be left without members
   */
  public static Removal of(Rulebase before, ObjectKind kind, String name) {
    String key = Names.key(name);
    List<Edit> edits = new ArrayList<>();
    if (kind == ObjectKind.ADDRESS) {
      Predicate<AddressItem> kept = item -> !isNamed(item, key);
      for (AddressObject group : before.addresses()) {
        List<AddressItem> left = left(kind, group.name(), group.members(), kept);
        if (left.size() < group.members().size()) {
          edits.add(
              new Edit.PutAddress(
                  new AddressObject(group.name(), left, group.note()), group.name()));
        }
      }
    }
    if (kind == ObjectKind.SERVICE) {
      Predicate<ServiceItem> kept = item -> !isNamed(item, key);
      for (ServiceObject group : before.services()) {
        List<ServiceItem> left = left(kind, group.name(), group.members(), kept);
        if (left.size() < group.members().size()) {
          edits.add(
              new Edit.PutService(
                  new ServiceObject(group.name(), left, group.note()), group.name()));
        }
      }
    }
    List<Change> changes = new ArrayList<>();
    for (Rule rule : before.rules()) {
      Rule after = without(rule, kind, key);
      if (after != rule) {
        changes.add(new Change(rule, after));
      }
    }
    if (!changes.isEmpty()) {
      edits.add(new Edit.ReplaceRules(changes.stream().map(Change::after).toList()));
    }
    return new Removal(List.copyOf(edits), new Edit.DeleteObject(kind, name), List.copyOf(changes));
  }

  /** All of it. */
  public Edit edit() {
    List<Edit> all = new ArrayList<>(losses);
    all.add(deletion);
    return all.size() == 1 ? deletion : new Edit.Batch(all);
  }

  /** The rulebase after the losses; the object is still there, so that both can be compared. */
  public Rulebase lessInUse(Rulebase before) {
    return losses.isEmpty() ? before : new Edit.Batch(losses).apply(before);
  }

  private static boolean isNamed(AddressItem item, String key) {
    return item instanceof AddressItem.Named named && Names.key(named.name()).equals(key);
  }

  private static boolean isNamed(ServiceItem item, String key) {
    return item instanceof ServiceItem.Named named && Names.key(named.name()).equals(key);
  }

  private static <T> List<T> left(
      ObjectKind kind, String group, List<T> members, Predicate<T> kept) {
    List<T> left = members.stream().filter(kept).toList();
    if (left.isEmpty()) {
      throw new InvalidModel(
          kind.word() + " \"" + group + "\"",
          "another member in a group that loses one; delete the group first",
          "none");
    }
    return left;
  }

  private static Rule without(Rule rule, ObjectKind kind, String key) {
    if (kind.namesIn(rule).stream().noneMatch(name -> Names.key(name).equals(key))) {
      return rule;
    }
    boolean[] widened = new boolean[1];
    Predicate<String> other = name -> !Names.key(name).equals(key);
    Predicate<AddressItem> otherAddress = item -> !isNamed(item, key);
    Predicate<ServiceItem> otherService = item -> !isNamed(item, key);
    Rule after =
        switch (kind) {
          case ZONE ->
              rule.matching(
                  less(rule.fromZones(), other, widened),
                  rule.fromAddresses(),
                  less(rule.toZones(), other, widened),
                  rule.toAddresses(),
                  rule.services());
          case ADDRESS ->
              rule.matching(
                  rule.fromZones(),
                  less(rule.fromAddresses(), otherAddress, widened),
                  rule.toZones(),
                  less(rule.toAddresses(), otherAddress, widened),
                  rule.services());
          case SERVICE ->
              rule.matching(
                  rule.fromZones(),
                  rule.fromAddresses(),
                  rule.toZones(),
                  rule.toAddresses(),
                  less(rule.services(), otherService, widened));
          case RATE_PLAN -> rule.handled(null, rule.notice());
          case NOTICE -> rule.handled(rule.ratePlan(), null);
          case HOST_LIST, SCHEDULE, DEVICE_STATE -> {
            Map<Coordinate, Criterion<String>> terms = new EnumMap<>(Coordinate.class);
            terms.putAll(rule.terms());
            terms.computeIfPresent(kind.coordinate(), (c, asked) -> less(asked, other, widened));
            yield rule.asking(terms);
          }
        };
    return widened[0] ? after.enabled(false) : after;
  }

  private static <T> Criterion<T> less(
      Criterion<T> criterion, Predicate<T> kept, boolean[] widened) {
    List<T> items = criterion.items().stream().filter(kept).toList();
    widened[0] |= items.isEmpty() && !criterion.items().isEmpty();
    return new Criterion<>(items, criterion.except().stream().filter(kept).toList());
  }
}
