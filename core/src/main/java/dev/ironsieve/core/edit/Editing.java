package dev.ironsieve.core.edit;

import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Feed;
import dev.ironsieve.core.model.InvalidModel;
import dev.ironsieve.core.model.Names;
import dev.ironsieve.core.model.ObjectKind;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Section;
import dev.ironsieve.core.model.Vocabulary;
import dev.ironsieve.core.rulebase.Rulebase;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.UnaryOperator;

/** Applies edits to rulebases; O(size of the rulebase). */
final class Editing {
  private Editing() {}

  static Rulebase apply(Edit edit, Rulebase before) {
    return switch (edit) {
      case Edit.InsertRules insert -> insert(before, insert.rules(), insert.place());
      case Edit.ReplaceRules replace -> replace(before, replace.rules());
      case Edit.DeleteRules delete -> without(before, requireRules(before, delete.ids()));
      case Edit.MoveRules move -> move(before, move);
      case Edit.InsertSection insert -> insertSection(before, insert);
      case Edit.RenameSection rename ->
          changeSection(before, rename.id(), s -> s.named(rename.name()));
      case Edit.MoveSection move -> moveSection(before, move);
      case Edit.DeleteSection delete -> deleteSection(before, delete.id());
      case Edit.PutZone put -> ObjectEditing.put(before, put);
      case Edit.PutAddress put -> ObjectEditing.put(before, put);
      case Edit.PutService put -> ObjectEditing.put(before, put);
      case Edit.PutTerms put -> ObjectEditing.put(before, put);
      case Edit.PutRatePlan put -> ObjectEditing.put(before, put);
      case Edit.PutNotice put -> ObjectEditing.put(before, put);
      case Edit.SetLineCapacity set ->
          before.withGatewaySettings(
              before.gatewaySettings().withLineCapacity(set.capacity()), before.sections());
      case Edit.SetTimeZone set ->
          before.withGatewaySettings(
              before.gatewaySettings().withTimeZone(set.zone()), before.sections());
      case Edit.SetBreadth set ->
          before.withGatewaySettings(
              before.gatewaySettings().withBreadth(set.breadth()), before.sections());
      case Edit.PutCheck put -> CheckEditing.put(before, put);
      case Edit.DeleteCheck delete -> CheckEditing.without(before, delete.name());
      case Edit.DeleteObject delete -> deleteObject(before, delete.kind(), delete.name());
      case Edit.PutVocabulary put -> putVocabulary(before, put.vocabulary());
      case Edit.DeleteVocabulary delete -> deleteVocabulary(before, delete.coordinate());
      case Edit.PutFeed put -> putFeed(before, put.feed());
      case Edit.DeleteFeed delete -> deleteFeed(before, delete.name());
      case Edit.Restore restore ->
          restore
              .rulebase()
              .named(before.name())
              .ofKind(before.kind())
              .under(before.common().orElse(null));
      case Edit.PutCommon put -> before.under(put.common());
      case Edit.Batch batch -> {
        Rulebase after = before;
        for (Edit part : batch.edits()) {
          after = apply(part, after);
        }
        yield after;
      }
    };
  }

  private static Rulebase insert(Rulebase before, List<Rule> rules, Place place) {
    int at = sectionOf(before, place);
    List<Section> sections = new ArrayList<>(before.sections());
    Section section = sections.get(at);
    List<Rule> inside = new ArrayList<>(section.rules());
    int index =
        switch (place) {
          case Place.Above above -> indexOf(section, above.ruleId());
          case Place.Below below -> indexOf(section, below.ruleId()) + 1;
          case Place.StartOf start -> 0;
          case Place.EndOf end -> inside.size();
        };
    inside.addAll(index, rules);
    sections.set(at, section.with(inside));
    return before.withSections(sections);
  }

  private static int sectionOf(Rulebase rulebase, Place place) {
    return switch (place) {
      case Place.Above above -> sectionWithRule(rulebase, above.ruleId());
      case Place.Below below -> sectionWithRule(rulebase, below.ruleId());
      case Place.StartOf start -> sectionNumber(rulebase, start.sectionId());
      case Place.EndOf end -> sectionNumber(rulebase, end.sectionId());
    };
  }

  private static int sectionWithRule(Rulebase rulebase, String ruleId) {
    for (int i = 0; i < rulebase.sections().size(); i++) {
      if (indexOf(rulebase.sections().get(i), ruleId) >= 0) {
        return i;
      }
    }
    throw new MissingTarget(Touched.RULE, ruleId);
  }

  static int sectionNumber(Rulebase rulebase, String id) {
    for (int i = 0; i < rulebase.sections().size(); i++) {
      if (rulebase.sections().get(i).id().equals(id)) {
        return i;
      }
    }
    throw new MissingTarget(Touched.SECTION, id);
  }

  private static int indexOf(Section section, String ruleId) {
    for (int i = 0; i < section.rules().size(); i++) {
      if (section.rules().get(i).id().equals(ruleId)) {
        return i;
      }
    }
    return -1;
  }

  static Map<String, Rule> requireRules(Rulebase before, List<String> ids) {
    Map<String, Rule> found = new HashMap<>();
    Set<String> wanted = new HashSet<>(ids);
    for (Rule rule : before.rules()) {
      if (wanted.contains(rule.id())) {
        found.put(rule.id(), rule);
      }
    }
    for (String id : ids) {
      if (!found.containsKey(id)) {
        throw new MissingTarget(Touched.RULE, id);
      }
    }
    return found;
  }

  private static Rulebase replace(Rulebase before, List<Rule> rules) {
    Map<String, Rule> next = new HashMap<>();
    rules.forEach(rule -> next.put(rule.id(), rule));
    List<Section> sections = new ArrayList<>();
    for (Section section : before.sections()) {
      List<Rule> inside = null;
      for (int i = 0; i < section.rules().size() && !next.isEmpty(); i++) {
        Rule other = next.remove(section.rules().get(i).id());
        if (other != null) {
          inside = inside == null ? new ArrayList<>(section.rules()) : inside;
          inside.set(i, other);
        }
      }
      sections.add(inside == null ? section : section.with(inside));
    }
    for (Rule rule : rules) {
      if (next.containsKey(rule.id())) {
        throw new MissingTarget(Touched.RULE, rule.id());
      }
    }
    return before.withSections(sections);
  }

  static List<Section> mapRules(Rulebase before, UnaryOperator<Rule> change) {
    return before.sections().stream()
        .map(s -> s.with(s.rules().stream().map(change).toList()))
        .toList();
  }

  private static Rulebase without(Rulebase before, Map<String, Rule> gone) {
    return before.withSections(
        before.sections().stream()
            .map(
                s ->
                    s.with(
                        s.rules().stream().filter(rule -> !gone.containsKey(rule.id())).toList()))
            .toList());
  }

  private static Rulebase move(Rulebase before, Edit.MoveRules move) {
    Map<String, Rule> rules = requireRules(before, move.ids());
    String anchor =
        switch (move.place()) {
          case Place.Above above -> above.ruleId();
          case Place.Below below -> below.ruleId();
          case Place.StartOf start -> null;
          case Place.EndOf end -> null;
        };
    if (rules.containsKey(anchor)) {
      throw new InvalidModel("place", "a rule that is not itself moved", "\"" + anchor + "\"");
    }
    List<Rule> inOrder = move.ids().stream().map(rules::get).toList();
    return insert(without(before, rules), inOrder, move.place());
  }

  private static Rulebase insertSection(Rulebase before, Edit.InsertSection insert) {
    List<Section> sections = new ArrayList<>(before.sections());
    int at =
        insert.before() == null
            ? end(before, sections, insert.tail())
            : sectionNumber(before, insert.before());
    sections.add(at, new Section(insert.id(), insert.name(), List.of(), insert.tail()));
    return before.withSections(sections);
  }

  private static Rulebase moveSection(Rulebase before, Edit.MoveSection move) {
    Section moved = before.sections().get(sectionNumber(before, move.id()));
    if (move.id().equals(move.before())) {
      throw new InvalidModel("before", "another section", "\"" + move.id() + "\"");
    }
    List<Section> sections = new ArrayList<>(before.sections());
    sections.remove(moved);
    int at = move.before() == null ? end(before, sections, moved.tail()) : 0;
    if (move.before() != null) {
      Section below = before.sections().get(sectionNumber(before, move.before()));
      if (below.tail() != moved.tail()) {
        throw new InvalidModel(
            "before", "a section of the same kind, head or tail", "\"" + below.name() + "\"");
      }
      at = sections.indexOf(below);
    }
    sections.add(at, moved);
    return before.withSections(sections);
  }

  /** The place behind the last section of the same kind that is not from a common rulebase. */
  private static int end(Rulebase before, List<Section> sections, boolean tail) {
    int at = sections.size();
    while (at > 0
        && (before.originOf(sections.get(at - 1)).isPresent()
            || sections.get(at - 1).tail() && !tail)) {
      at--;
    }
    return at;
  }

  private static Rulebase changeSection(Rulebase before, String id, UnaryOperator<Section> change) {
    int at = sectionNumber(before, id);
    List<Section> sections = new ArrayList<>(before.sections());
    sections.set(at, change.apply(sections.get(at)));
    return before.withSections(sections);
  }

  private static Rulebase deleteSection(Rulebase before, String id) {
    int at = sectionNumber(before, id);
    Section section = before.sections().get(at);
    if (!section.rules().isEmpty()) {
      throw new InvalidModel(
          "section \"" + section.name() + "\"",
          "no rules in a section to be deleted",
          section.rules().size() + " rules");
    }
    if (before.own().sections().size() == 1 && before.originOf(section).isEmpty()) {
      throw new InvalidModel("sections", "at least one", "none left");
    }
    List<Section> sections = new ArrayList<>(before.sections());
    sections.remove(at);
    return before.withSections(sections);
  }

  private static Rulebase putVocabulary(Rulebase before, Vocabulary vocabulary) {
    List<Vocabulary> next = new ArrayList<>(before.pinned());
    next.removeIf(known -> known.coordinate() == vocabulary.coordinate());
    next.add(vocabulary);
    next.sort(Comparator.comparing(Vocabulary::coordinate));
    return before.withPinned(next);
  }

  private static Rulebase deleteVocabulary(Rulebase before, Coordinate coordinate) {
    List<Vocabulary> next = new ArrayList<>(before.pinned());
    if (!next.removeIf(known -> known.coordinate() == coordinate)) {
      throw new MissingTarget(Touched.VOCABULARY, coordinate.word());
    }
    return before.withPinned(next);
  }

  private static Rulebase putFeed(Rulebase before, Feed feed) {
    List<Feed> next = new ArrayList<>(before.feeds());
    next.removeIf(known -> Names.key(known.name()).equals(Names.key(feed.name())));
    next.add(feed);
    next.sort(Comparator.comparing(known -> Names.key(known.name())));
    return before.withFeeds(next);
  }

  private static Rulebase deleteFeed(Rulebase before, String name) {
    List<Feed> next = new ArrayList<>(before.feeds());
    if (!next.removeIf(known -> Names.key(known.name()).equals(Names.key(name)))) {
      throw new MissingTarget(Touched.FEED, name);
    }
    return before.withFeeds(next);
  }

  private static Rulebase deleteObject(Rulebase before, ObjectKind kind, String name) {
    List<Rule> users = before.rulesUsing(kind, name);
    if (!users.isEmpty()) {
      String found =
          users.size() + " rules that use it, the first being \"" + users.getFirst().name() + "\"";
      throw new InvalidModel(kind.word() + " \"" + name + "\"", "no rule that uses it", found);
    }
    Rulebase after = ObjectEditing.without(before, kind, Names.key(name));
    if (after.equals(before)) {
      throw new MissingTarget(kind.word(), name);
    }
    return after;
  }
}
