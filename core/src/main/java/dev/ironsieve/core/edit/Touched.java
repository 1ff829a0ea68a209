package dev.ironsieve.core.edit;

import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Names;
import dev.ironsieve.core.model.ObjectKind;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.rulebase.Rulebase;
import java.util.LinkedHashSet;
import java.util.Set;
import java.util.stream.Collectors;

/**
 * Something that an edit changes.
 *
 * @param kind rule, section, feed, common, line, clock, settings, check, vocabulary, or the word of
 *     an {@link ObjectKind}
 * @param key the id of a rule or section; the name of an object or feed, in lower case; the word of
 *     a coordinate
 */
public record Touched(String kind, String key) {
  public static final String RULE = "rule";
  public static final String SECTION = "section";
  public static final String FEED = "feed";
  public static final String COMMON = "common";
  public static final String LINE = "line";
  public static final String CLOCK = "clock";
  public static final String CHECK = "check";
  public static final String SETTINGS = "settings";
  public static final String VOCABULARY = "vocabulary";

  static Set<Touched> by(Edit edit, Rulebase before) {
    Set<Touched> out = new LinkedHashSet<>();
    switch (edit) {
      case Edit.InsertRules insert ->
          insert.rules().forEach(rule -> out.add(new Touched(RULE, rule.id())));
      case Edit.ReplaceRules replace ->
          replace.rules().forEach(rule -> out.add(new Touched(RULE, rule.id())));
      case Edit.DeleteRules delete -> delete.ids().forEach(id -> out.add(new Touched(RULE, id)));
      case Edit.MoveRules move -> move.ids().forEach(id -> out.add(new Touched(RULE, id)));
      case Edit.InsertSection insert -> out.add(new Touched(SECTION, insert.id()));
      case Edit.RenameSection rename -> out.add(new Touched(SECTION, rename.id()));
      case Edit.MoveSection move -> out.add(new Touched(SECTION, move.id()));
      case Edit.DeleteSection delete -> out.add(new Touched(SECTION, delete.id()));
      case Edit.PutZone put ->
          byPut(ObjectKind.ZONE, put.zone().name(), put.replaces(), before, out);
      case Edit.PutAddress put ->
          byPut(ObjectKind.ADDRESS, put.address().name(), put.replaces(), before, out);
      case Edit.PutService put ->
          byPut(ObjectKind.SERVICE, put.service().name(), put.replaces(), before, out);
      case Edit.PutTerms put ->
          byPut(put.object().kind(), put.object().name(), put.replaces(), before, out);
      case Edit.PutRatePlan put ->
          byPut(ObjectKind.RATE_PLAN, put.plan().name(), put.replaces(), before, out);
      case Edit.PutNotice put ->
          byPut(ObjectKind.NOTICE, put.notice().name(), put.replaces(), before, out);
      case Edit.SetLineCapacity set -> out.add(new Touched(LINE, "capacity"));
      case Edit.SetTimeZone set -> out.add(new Touched(CLOCK, "time zone"));
      case Edit.SetBreadth set -> out.add(new Touched(SETTINGS, "too broad"));
      case Edit.PutCheck put -> {
        out.add(new Touched(CHECK, Names.key(put.check().name())));
        if (put.replaces() != null) {
          out.add(new Touched(CHECK, Names.key(put.replaces())));
        }
      }
      case Edit.DeleteCheck delete -> out.add(new Touched(CHECK, Names.key(delete.name())));
      case Edit.DeleteObject delete -> out.add(object(delete.kind(), delete.name()));
      case Edit.PutVocabulary put -> out.add(vocabulary(put.vocabulary().coordinate()));
      case Edit.DeleteVocabulary delete -> out.add(vocabulary(delete.coordinate()));
      case Edit.PutFeed put -> out.add(new Touched(FEED, Names.key(put.feed().name())));
      case Edit.DeleteFeed delete -> out.add(new Touched(FEED, Names.key(delete.name())));
      case Edit.Restore restore -> out.addAll(DifferingParts.of(before, restore.apply(before)));
      case Edit.PutCommon put -> {
        out.add(new Touched(COMMON, "rules"));
        out.addAll(DifferingParts.of(before, put.apply(before)));
      }
      case Edit.Batch batch -> batch.edits().forEach(part -> out.addAll(by(part, before)));
    }
    return out;
  }

  private static void byPut(
      ObjectKind kind, String name, String replaces, Rulebase before, Set<Touched> out) {
    out.add(object(kind, name));
    if (replaces != null) {
      out.add(object(kind, replaces));
    }
    if (replaces != null && !replaces.equals(name)) {
      before.rules().stream()
          .filter(rule -> mentions(rule, kind, replaces))
          .forEach(rule -> out.add(new Touched(RULE, rule.id())));
    }
  }

  private static boolean mentions(Rule rule, ObjectKind kind, String name) {
    return kind.namesIn(rule).stream().anyMatch(n -> Names.key(n).equals(Names.key(name)));
  }

  private static Touched vocabulary(Coordinate coordinate) {
    return new Touched(VOCABULARY, coordinate.word());
  }

  private static Touched object(ObjectKind kind, String name) {
    return new Touched(kind.word(), Names.key(name));
  }

  /** The ids of the rules among {@code touched}. */
  public static Set<String> ruleIds(Set<Touched> touched) {
    return touched.stream()
        .filter(t -> t.kind().equals(RULE))
        .map(Touched::key)
        .collect(Collectors.toSet());
  }
}
