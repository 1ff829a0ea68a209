package dev.ironsieve.server.draft;

import dev.ironsieve.core.analysis.LiveAnalysis;
import dev.ironsieve.core.model.ObjectKind;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.formats.document.BreadthDocument;
import dev.ironsieve.formats.document.CheckDocument;
import dev.ironsieve.formats.document.FromModel;
import dev.ironsieve.formats.document.NoticeDocument;
import dev.ironsieve.formats.document.ObjectDocument;
import dev.ironsieve.formats.document.RatePlanDocument;
import dev.ironsieve.formats.document.SectionDocument;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * A whole draft, as a view first loads it.
 *
 * @param revision the revision that it is based on
 * @param version the draft's version, which the next change has to name
 * @param lineCapacity capacity of the line; left out if unknown
 * @param timeZone the default time zone of times
 * @param tooBroad the settings of the finding <i>too broad</i>
 * @param checks connections with an expected verdict, which run after every change
 * @param editions the pinned edition of each vocabulary, by coordinate
 * @param kind of the rulebase
 * @param common what it has from a common rulebase; left out if it has nothing
 * @param changes the number of changes since the revision
 * @param analysisMillis time of the last analysis, in milliseconds
 */
public record DraftDocument(
    @Schema(required = true) long id,
    @Schema(required = true) String name,
    @Schema(
            required = true,
            enumeration = {"traffic", "common", "services"})
        String kind,
    CommonParts common,
    @Schema(required = true) int revision,
    @Schema(required = true) long version,
    @Schema(required = true) int changes,
    @Schema(required = true) List<ObjectDocument> zones,
    @Schema(required = true) List<ObjectDocument> addresses,
    @Schema(required = true) List<ObjectDocument> services,
    @Schema(required = true) List<ObjectDocument> hostLists,
    @Schema(required = true) List<ObjectDocument> schedules,
    @Schema(required = true) List<ObjectDocument> deviceStates,
    @Schema(required = true) List<RatePlanDocument> ratePlans,
    @Schema(required = true) List<NoticeDocument> notices,
    String lineCapacity,
    @Schema(required = true) String timeZone,
    @Schema(required = true) BreadthDocument tooBroad,
    @Schema(required = true) List<CheckDocument> checks,
    @Schema(required = true) Map<String, String> editions,
    @Schema(required = true) List<PinnedFeed> feeds,
    @Schema(required = true) List<SectionDocument> sections,
    @Schema(required = true) Map<String, StandingDocument> standings,
    @Schema(required = true) double analysisMillis) {

  /** The state that a document shows, besides its rules. */
  public record Source(long id, String name, int revision, long version, int changes) {}

  /**
   * The document of an analysed rulebase.
   *
   * @param analysisMillis time of the last analysis, in milliseconds
   */
  public static DraftDocument of(Source source, LiveAnalysis analysis, double analysisMillis) {
    analysis.answerAll();
    Rulebase base = analysis.rulebase();
    Map<String, StandingDocument> standings = new LinkedHashMap<>();
    base.rules()
        .forEach(rule -> standings.put(rule.id(), StandingDocument.of(rule.id(), analysis)));
    return new DraftDocument(
        source.id(),
        source.name(),
        base.kind().word(),
        CommonParts.of(base).orElse(null),
        source.revision(),
        source.version(),
        source.changes(),
        base.zones().stream().map(FromModel::zone).toList(),
        base.addresses().stream().map(FromModel::address).toList(),
        base.services().stream().map(FromModel::service).toList(),
        FromModel.terms(base, ObjectKind.HOST_LIST),
        FromModel.terms(base, ObjectKind.SCHEDULE),
        FromModel.terms(base, ObjectKind.DEVICE_STATE),
        base.gatewaySettings().ratePlans().stream().map(FromModel::ratePlan).toList(),
        base.gatewaySettings().notices().stream().map(FromModel::notice).toList(),
        Objects.toString(base.gatewaySettings().lineCapacity(), null),
        base.gatewaySettings().timeZone().getId(),
        FromModel.breadth(base.gatewaySettings().breadth()),
        base.checks().stream().map(FromModel::check).toList(),
        LiveDraft.editions(base),
        base.feeds().stream().map(PinnedFeed::of).toList(),
        base.sections().stream().map(FromModel::section).toList(),
        standings,
        analysisMillis);
  }
}
