package dev.ironsieve.server.draft;

import com.fasterxml.jackson.annotation.JsonInclude;
import dev.ironsieve.formats.document.BreadthDocument;
import dev.ironsieve.formats.document.CheckDocument;
import dev.ironsieve.formats.document.CommonDocument;
import dev.ironsieve.formats.document.FeedDocument;
import dev.ironsieve.formats.document.NoticeDocument;
import dev.ironsieve.formats.document.ObjectDocument;
import dev.ironsieve.formats.document.RatePlanDocument;
import dev.ironsieve.formats.document.RuleDocument;
import dev.ironsieve.formats.document.RulebaseDocument;
import dev.ironsieve.formats.document.VocabularyDocument;
import java.util.List;
import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * One edit of a draft. Its members follow from its kind:
 *
 * <pre>
 *   insertRules    rules, place          insertSection  id, name, before (none: at the end), tail
 *   replaceRules   rules                 renameSection  id, name
 *   deleteRules    ids                   deleteSection  id
 *   moveRules      ids, place            moveSection    id, before (none: at the end)
 *                                        putZone, putAddress, putService
 *   batch          edits                  putHostList, putSchedule, putDeviceState
 *                                        object, replaces (none: a new one)
 *                                        putRatePlan    ratePlan, replaces
 *                                        putNotice      notice, replaces
 *                                        setLineCapacity  capacity (none: not known)
 *                                        setTimeZone    name
 *                                        setBreadth     tooBroad
 *                                        putCheck       check, replaces, before
 *                                        deleteCheck    name
 *                                        deleteObject   objectKind, name
 *                                        putVocabulary  vocabulary
 *                                        deleteVocabulary  name (of the coordinate)
 *                                        putFeed        feed (in events: pinned)
 *                                        deleteFeed     name
 *                                        putCommon      common (none: removes it; in events:
 *                                                       without its parts)
 *                                        restore        name, rulebase (not in events)
 * </pre>
 *
 * @param pinned a feed without its entries, which no view needs
 */
@JsonInclude(JsonInclude.Include.NON_NULL)
public record EditDocument(
    @Schema(
            required = true,
            enumeration = {
              "insertRules",
              "replaceRules",
              "deleteRules",
              "moveRules",
              "insertSection",
              "renameSection",
              "moveSection",
              "deleteSection",
              "putZone",
              "putAddress",
              "putService",
              "putHostList",
              "putSchedule",
              "putDeviceState",
              "putRatePlan",
              "putNotice",
              "setLineCapacity",
              "setTimeZone",
              "setBreadth",
              "putCheck",
              "deleteCheck",
              "deleteObject",
              "putVocabulary",
              "deleteVocabulary",
              "putFeed",
              "deleteFeed",
              "putCommon",
              "restore",
              "batch"
            })
        String kind,
    List<RuleDocument> rules,
    List<String> ids,
    PlaceDocument place,
    String id,
    String name,
    String before,
    Boolean tail,
    ObjectDocument object,
    String replaces,
    @Schema(
            enumeration = {
              "zone",
              "address",
              "service",
              "host list",
              "schedule",
              "device state",
              "rate plan",
              "notice"
            })
        String objectKind,
    VocabularyDocument vocabulary,
    FeedDocument feed,
    PinnedFeed pinned,
    RatePlanDocument ratePlan,
    NoticeDocument notice,
    String capacity,
    BreadthDocument tooBroad,
    CheckDocument check,
    CommonDocument common,
    RulebaseDocument rulebase,
    List<EditDocument> edits) {

  /** A place in the order; exactly one member is there. */
  @JsonInclude(JsonInclude.Include.NON_NULL)
  public record PlaceDocument(String above, String below, String startOf, String endOf) {}

  /** Builds an edit document of some kind; members that are not set are left out. */
  static final class Builder {
    private final String kind;
    List<RuleDocument> rules;
    List<String> ids;
    PlaceDocument place;
    String id;
    String name;
    String before;
    Boolean tail;
    ObjectDocument object;
    String replaces;
    String objectKind;
    VocabularyDocument vocabulary;
    FeedDocument feed;
    PinnedFeed pinned;
    RatePlanDocument ratePlan;
    NoticeDocument notice;
    String capacity;
    BreadthDocument tooBroad;
    CheckDocument check;
    CommonDocument common;
    RulebaseDocument rulebase;
    List<EditDocument> edits;

    Builder(String kind) {
      this.kind = kind;
    }

    EditDocument build() {
      return new EditDocument(
          kind,
          rules,
          ids,
          place,
          id,
          name,
          before,
          tail,
          object,
          replaces,
          objectKind,
          vocabulary,
          feed,
          pinned,
          ratePlan,
          notice,
          capacity,
          tooBroad,
          check,
          common,
          rulebase,
          edits);
    }
  }
}
