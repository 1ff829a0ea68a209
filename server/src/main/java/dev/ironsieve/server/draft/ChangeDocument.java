package dev.ironsieve.server.draft;

import com.fasterxml.jackson.annotation.JsonInclude;
import java.util.Map;
import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * A change of a draft and its effect on the standing of rules.
 *
 * @param version the draft's version with this change
 * @param kind {@code edit}, {@code undo} or {@code redo}
 * @param by display name of who made it
 * @param account name of who made it
 * @param at when, RFC 3339
 * @param inverse what takes it back, and so tells what was before; in the history only
 * @param standings rules whose standing is new or another, by id
 * @param analysisMillis time from the edit to the new standings, in milliseconds
 */
@JsonInclude(JsonInclude.Include.NON_NULL)
public record ChangeDocument(
    @Schema(required = true) long version,
    @Schema(required = true) String kind,
    @Schema(required = true) String by,
    @Schema(required = true) String account,
    @Schema(required = true) String at,
    @Schema(required = true) EditDocument edit,
    EditDocument inverse,
    Map<String, StandingDocument> standings,
    Double analysisMillis) {}
