package dev.ironsieve.server.draft;

import dev.ironsieve.core.edit.Edit;
import dev.ironsieve.core.edit.Place;
import dev.ironsieve.core.model.InvalidModel;
import dev.ironsieve.core.model.ObjectKind;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.formats.InvalidDocument;
import dev.ironsieve.formats.document.FeedDocument;
import dev.ironsieve.formats.document.FromModel;
import dev.ironsieve.formats.document.ObjectDocument;
import dev.ironsieve.formats.document.RuleDocument;
import dev.ironsieve.formats.document.ToModel;
import dev.ironsieve.formats.document.VocabularyDocument;
import dev.ironsieve.server.draft.EditDocument.PlaceDocument;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Objects;
import java.util.stream.Stream;

/** The way between edits and their documents. */
final class EditDocuments {
  private EditDocuments() {}

  /** Reads an edit; throws {@link InvalidDocument} with paths below {@code path}. */
  static Edit read(EditDocument document, String path) {
    if (document == null) {
      throw new InvalidDocument(path, "an edit", "nothing");
    }
    try {
      return readKind(document, path);
    } catch (InvalidModel e) {
      throw new InvalidDocument(path, e.expected() + " (" + e.place() + ")", e.found());
    }
  }

  private static Edit readKind(EditDocument d, String path) {
    return switch (required(d.kind(), path + ".kind")) {
      case "insertRules" -> new Edit.InsertRules(rules(d, path), place(d, path));
      case "replaceRules" -> new Edit.ReplaceRules(rules(d, path));
      case "deleteRules" -> new Edit.DeleteRules(ids(d, path));
      case "moveRules" -> new Edit.MoveRules(ids(d, path), place(d, path));
      case "insertSection" ->
          new Edit.InsertSection(
              required(d.id(), path + ".id"), required(d.name(), path + ".name"), d.before());
      case "renameSection" ->
          new Edit.RenameSection(
              required(d.id(), path + ".id"), required(d.name(), path + ".name"));
      case "deleteSection" -> new Edit.DeleteSection(required(d.id(), path + ".id"));
      case "putZone" -> new Edit.PutZone(ToModel.zone(object(d, path), object(path)), d.replaces());
      case "putAddress" ->
          new Edit.PutAddress(ToModel.address(object(d, path), object(path)), d.replaces());
      case "putService" ->
          new Edit.PutService(ToModel.service(object(d, path), object(path)), d.replaces());
      case "putHostList" -> putTerms(ObjectKind.HOST_LIST, d, path);
      case "putSchedule" -> putTerms(ObjectKind.SCHEDULE, d, path);
      case "deleteObject" ->
          new Edit.DeleteObject(objectKind(d, path), required(d.name(), path + ".name"));
      case "putVocabulary" ->
          new Edit.PutVocabulary(
              ToModel.vocabulary(
                  required(d.vocabulary(), path + ".vocabulary"), path + ".vocabulary"));
      case "deleteVocabulary" ->
          new Edit.DeleteVocabulary(
              ToModel.coordinate(required(d.name(), path + ".name"), path + ".name"));
      case "putFeed" ->
          new Edit.PutFeed(ToModel.feed(required(d.feed(), path + ".feed"), path + ".feed"));
      case "deleteFeed" -> new Edit.DeleteFeed(required(d.name(), path + ".name"));
      case "batch" -> {
        List<EditDocument> parts = required(d.edits(), path + ".edits");
        List<Edit> edits = new ArrayList<>();
        for (int i = 0; i < parts.size(); i++) {
          edits.add(read(parts.get(i), path + ".edits[" + i + "]"));
        }
        yield new Edit.Batch(edits);
      }
      default ->
          throw new InvalidDocument(path + ".kind", "a known kind of edit", '"' + d.kind() + '"');
    };
  }

  private static String object(String path) {
    return path + ".object";
  }

  private static <T> T required(T value, String path) {
    if (value == null) {
      throw new InvalidDocument(path, "a value", "nothing");
    }
    return value;
  }

  private static List<Rule> rules(EditDocument d, String path) {
    List<RuleDocument> given = required(d.rules(), path + ".rules");
    List<Rule> out = new ArrayList<>();
    for (int i = 0; i < given.size(); i++) {
      out.add(ToModel.rule(given.get(i), path + ".rules[" + i + "]"));
    }
    return out;
  }

  private static List<String> ids(EditDocument d, String path) {
    List<String> ids = required(d.ids(), path + ".ids");
    for (int i = 0; i < ids.size(); i++) {
      required(ids.get(i), path + ".ids[" + i + "]");
    }
    return ids;
  }

  private static ObjectDocument object(EditDocument d, String path) {
    return required(d.object(), object(path));
  }

  private static Edit putTerms(ObjectKind kind, EditDocument d, String path) {
    return new Edit.PutTerms(ToModel.terms(kind, object(d, path), object(path)), d.replaces());
  }

  private static ObjectKind objectKind(EditDocument d, String path) {
    return Arrays.stream(ObjectKind.values())
        .filter(kind -> kind.word().equals(d.objectKind()))
        .findFirst()
        .orElseThrow(
            () ->
                new InvalidDocument(
                    path + ".objectKind",
                    "zone, address, service, host list or schedule",
                    d.objectKind() + ""));
  }

  private static Place place(EditDocument d, String path) {
    PlaceDocument place = required(d.place(), path + ".place");
    long said =
        Stream.of(place.above(), place.below(), place.startOf(), place.endOf())
            .filter(Objects::nonNull)
            .count();
    if (said != 1) {
      throw new InvalidDocument(
          path + ".place", "exactly one of above, below, startOf, endOf", said + " of them");
    }
    if (place.above() != null) {
      return new Place.Above(place.above());
    }
    if (place.below() != null) {
      return new Place.Below(place.below());
    }
    return place.startOf() != null
        ? new Place.StartOf(place.startOf())
        : new Place.EndOf(place.endOf());
  }

  /** The whole edit, as it is stored. */
  static EditDocument write(Edit edit) {
    return write(edit, true);
  }

  /** The edit as views are told of it: of a feed, only what it is called and holds. */
  static EditDocument tell(Edit edit) {
    return write(edit, false);
  }

  private static EditDocument write(Edit edit, boolean whole) {
    return switch (edit) {
      case Edit.InsertRules e -> ofRules("insertRules", e.rules(), write(e.place()));
      case Edit.ReplaceRules e -> ofRules("replaceRules", e.rules(), null);
      case Edit.DeleteRules e -> ofIds("deleteRules", e.ids(), null);
      case Edit.MoveRules e -> ofIds("moveRules", e.ids(), write(e.place()));
      case Edit.InsertSection e -> ofSection("insertSection", e.id(), e.name(), e.before());
      case Edit.RenameSection e -> ofSection("renameSection", e.id(), e.name(), null);
      case Edit.DeleteSection e -> ofSection("deleteSection", e.id(), null, null);
      case Edit.PutZone e -> ofObject("putZone", FromModel.zone(e.zone()), e.replaces());
      case Edit.PutAddress e ->
          ofObject("putAddress", FromModel.address(e.address()), e.replaces());
      case Edit.PutService e ->
          ofObject("putService", FromModel.service(e.service()), e.replaces());
      case Edit.PutTerms e ->
          ofObject(
              e.object().kind() == ObjectKind.HOST_LIST ? "putHostList" : "putSchedule",
              FromModel.terms(e.object()),
              e.replaces());
      case Edit.DeleteObject e -> named("deleteObject", e.name(), e.kind().word());
      case Edit.PutVocabulary e ->
          ofPinned("putVocabulary", FromModel.vocabulary(e.vocabulary()), null, null);
      case Edit.DeleteVocabulary e -> named("deleteVocabulary", e.coordinate().word(), null);
      case Edit.PutFeed e ->
          whole
              ? ofPinned("putFeed", null, FromModel.feed(e.feed()), null)
              : ofPinned("putFeed", null, null, PinnedFeed.of(e.feed()));
      case Edit.DeleteFeed e -> named("deleteFeed", e.name(), null);
      case Edit.Batch e ->
          new EditDocument(
              "batch",
              null,
              null,
              null,
              null,
              null,
              null,
              null,
              null,
              null,
              null,
              null,
              null,
              e.edits().stream().map(part -> write(part, whole)).toList());
    };
  }

  private static EditDocument ofRules(String kind, List<Rule> rules, PlaceDocument place) {
    List<RuleDocument> documents = rules.stream().map(FromModel::rule).toList();
    return new EditDocument(
        kind, documents, null, place, null, null, null, null, null, null, null, null, null, null);
  }

  private static EditDocument ofIds(String kind, List<String> ids, PlaceDocument place) {
    return new EditDocument(
        kind, null, ids, place, null, null, null, null, null, null, null, null, null, null);
  }

  private static EditDocument ofSection(String kind, String id, String name, String before) {
    return new EditDocument(
        kind, null, null, null, id, name, before, null, null, null, null, null, null, null);
  }

  private static EditDocument ofObject(String kind, ObjectDocument object, String replaces) {
    return new EditDocument(
        kind, null, null, null, null, null, null, object, replaces, null, null, null, null, null);
  }

  private static EditDocument named(String kind, String name, String objectKind) {
    return new EditDocument(
        kind, null, null, null, null, name, null, null, null, objectKind, null, null, null, null);
  }

  private static EditDocument ofPinned(
      String kind, VocabularyDocument vocabulary, FeedDocument feed, PinnedFeed pinned) {
    return new EditDocument(
        kind, null, null, null, null, null, null, null, null, null, vocabulary, feed, pinned, null);
  }

  private static PlaceDocument write(Place place) {
    return switch (place) {
      case Place.Above above -> new PlaceDocument(above.ruleId(), null, null, null);
      case Place.Below below -> new PlaceDocument(null, below.ruleId(), null, null);
      case Place.StartOf start -> new PlaceDocument(null, null, start.sectionId(), null);
      case Place.EndOf end -> new PlaceDocument(null, null, null, end.sectionId());
    };
  }
}
