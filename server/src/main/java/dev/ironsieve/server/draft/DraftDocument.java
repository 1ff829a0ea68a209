package dev.ironsieve.server.draft;

import dev.ironsieve.formats.document.BreadthDocument;
import dev.ironsieve.formats.document.CheckDocument;
import dev.ironsieve.formats.document.NoticeDocument;
import dev.ironsieve.formats.document.ObjectDocument;
import dev.ironsieve.formats.document.RatePlanDocument;
import dev.ironsieve.formats.document.SectionDocument;
import java.util.List;
import java.util.Map;
import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * A draft as a view needs it first.
 *
 * @param revision the revision that it stands on
 * @param version the draft's version, to be named with the next change
 * @param lineCapacity how much the line carries; nothing if nobody said it
 * @param timeZone in which times are meant that say none
 * @param tooBroad when a rule is too broad
 * @param checks connections that are tried again after every change
 * @param editions the pinned edition of what rules can say of a coordinate, by its word
 * @param changes how many changes it is away from the revision
 * @param analysisMillis time of the last analysis, in milliseconds
 */
public record DraftDocument(
    @Schema(required = true) long id,
    @Schema(required = true) String name,
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
    @Schema(required = true) double analysisMillis) {}
