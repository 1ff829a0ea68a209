package dev.ironsieve.server.draft;

import dev.ironsieve.core.edit.Edit;
import dev.ironsieve.core.edit.Place;
import dev.ironsieve.core.model.InvalidModel;
import dev.ironsieve.core.model.ObjectKind;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.rulebase.CommonRules;
import dev.ironsieve.formats.InvalidDocument;
import dev.ironsieve.formats.document.CommonDocument;
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

/** Converts edits to documents and back. */
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
              required(d.id(), path + ".id"),
              required(d.name(), path + ".name"),
              d.before(),
              Boolean.TRUE.equals(d.tail()));
      case "renameSection" ->
          new Edit.RenameSection(
              required(d.id(), path + ".id"), required(d.name(), path + ".name"));
      case "moveSection" -> new Edit.MoveSection(required(d.id(), path + ".id"), d.before());
      case "deleteSection" -> new Edit.DeleteSection(required(d.id(), path + ".id"));
      case "putZone" -> new Edit.PutZone(ToModel.zone(object(d, path), object(path)), d.replaces());
      case "putAddress" ->
          new Edit.PutAddress(ToModel.address(object(d, path), object(path)), d.replaces());
      case "putService" ->
          new Edit.PutService(ToModel.service(object(d, path), object(path)), d.replaces());
      case "putHostList" -> putTerms(ObjectKind.HOST_LIST, d, path);
      case "putSchedule" -> putTerms(ObjectKind.SCHEDULE, d, path);
      case "putDeviceState" -> putTerms(ObjectKind.DEVICE_STATE, d, path);
      case "putRatePlan" ->
          new Edit.PutRatePlan(
              ToModel.ratePlan(required(d.ratePlan(), path + ".ratePlan"), path + ".ratePlan"),
              d.replaces());
      case "putNotice" ->
          new Edit.PutNotice(
              ToModel.notice(required(d.notice(), path + ".notice"), path + ".notice"),
              d.replaces());
      case "setLineCapacity" ->
          new Edit.SetLineCapacity(ToModel.rate(d.capacity(), path + ".capacity"));
      case "setTimeZone" -> new Edit.SetTimeZone(ToModel.timeZone(d.name(), path + ".name"));
      case "setBreadth" ->
          new Edit.SetBreadth(
              ToModel.breadth(required(d.tooBroad(), path + ".tooBroad"), path + ".tooBroad"));
      case "putCheck" ->
          new Edit.PutCheck(
              ToModel.check(required(d.check(), path + ".check"), path + ".check"),
              d.replaces(),
              d.before());
      case "deleteCheck" -> new Edit.DeleteCheck(required(d.name(), path + ".name"));
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
      case "putCommon" ->
          new Edit.PutCommon(
              d.common() == null ? null : ToModel.common(d.common(), path + ".common"));
      case "restore" ->
          new Edit.Restore(
              required(d.name(), path + ".name"),
              ToModel.rulebase(required(d.rulebase(), path + ".rulebase")));
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
                    "zone, address, service, host list, schedule, device state, rate plan or notice",
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

  /** The edit for events: feeds, vocabularies and restored states by name only. */
  static EditDocument tell(Edit edit) {
    return write(edit, false);
  }

  private static EditDocument write(Edit edit, boolean whole) {
    EditDocument.Builder to = new EditDocument.Builder(kind(edit));
    switch (edit) {
      case Edit.InsertRules e -> {
        to.rules = rules(e.rules());
        to.place = write(e.place());
      }
      case Edit.ReplaceRules e -> to.rules = rules(e.rules());
      case Edit.DeleteRules e -> to.ids = e.ids();
      case Edit.MoveRules e -> {
        to.ids = e.ids();
        to.place = write(e.place());
      }
      case Edit.InsertSection e -> {
        to.id = e.id();
        to.name = e.name();
        to.before = e.before();
        to.tail = e.tail() ? true : null;
      }
      case Edit.RenameSection e -> {
        to.id = e.id();
        to.name = e.name();
      }
      case Edit.MoveSection e -> {
        to.id = e.id();
        to.before = e.before();
      }
      case Edit.DeleteSection e -> to.id = e.id();
      case Edit.PutZone e -> put(to, FromModel.zone(e.zone()), e.replaces());
      case Edit.PutAddress e -> put(to, FromModel.address(e.address()), e.replaces());
      case Edit.PutService e -> put(to, FromModel.service(e.service()), e.replaces());
      case Edit.PutTerms e -> put(to, FromModel.terms(e.object()), e.replaces());
      case Edit.PutRatePlan e -> {
        to.ratePlan = FromModel.ratePlan(e.plan());
        to.replaces = e.replaces();
      }
      case Edit.PutNotice e -> {
        to.notice = FromModel.notice(e.notice());
        to.replaces = e.replaces();
      }
      case Edit.SetLineCapacity e ->
          to.capacity = e.capacity() == null ? null : e.capacity().toString();
      case Edit.SetTimeZone e -> to.name = e.zone().getId();
      case Edit.SetBreadth e -> to.tooBroad = FromModel.breadth(e.breadth());
      case Edit.PutCheck e -> {
        to.check = FromModel.check(e.check());
        to.replaces = e.replaces();
        to.before = e.before();
      }
      case Edit.DeleteCheck e -> to.name = e.name();
      case Edit.DeleteObject e -> {
        to.name = e.name();
        to.objectKind = e.kind().word();
      }
      case Edit.PutVocabulary e -> {
        VocabularyDocument all = FromModel.vocabulary(e.vocabulary());
        to.vocabulary = whole ? all : new VocabularyDocument(all.coordinate(), all.edition());
      }
      case Edit.DeleteVocabulary e -> to.name = e.coordinate().word();
      case Edit.PutFeed e -> {
        to.feed = whole ? FromModel.feed(e.feed()) : null;
        to.pinned = whole ? null : PinnedFeed.of(e.feed());
      }
      case Edit.DeleteFeed e -> to.name = e.name();
      case Edit.PutCommon e -> to.common = e.common() == null ? null : common(e.common(), whole);
      case Edit.Restore e -> {
        to.name = e.state();
        to.rulebase = whole ? FromModel.rulebase(e.rulebase()) : null;
      }
      case Edit.Batch e -> to.edits = e.edits().stream().map(part -> write(part, whole)).toList();
    }
    return to.build();
  }

  private static CommonDocument common(CommonRules common, boolean whole) {
    return whole
        ? FromModel.common(common)
        : CommonDocument.named(common.rulebase(), common.revision());
  }

  /** Kinds are called as the records are, which must therefore keep their names. */
  private static String kind(Edit edit) {
    if (edit instanceof Edit.PutTerms put) {
      return switch (put.object().kind()) {
        case HOST_LIST -> "putHostList";
        case SCHEDULE -> "putSchedule";
        case DEVICE_STATE -> "putDeviceState";
        case ZONE, ADDRESS, SERVICE, RATE_PLAN, NOTICE ->
            throw new IllegalArgumentException("not of terms: " + put.object().kind());
      };
    }
    String name = edit.getClass().getSimpleName();
    return Character.toLowerCase(name.charAt(0)) + name.substring(1);
  }

  private static List<RuleDocument> rules(List<Rule> rules) {
    return rules.stream().map(FromModel::rule).toList();
  }

  private static void put(EditDocument.Builder to, ObjectDocument object, String replaces) {
    to.object = object;
    to.replaces = replaces;
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
