package dev.ironsieve.server.restore;

import com.fasterxml.jackson.annotation.JsonInclude;
import java.util.List;
import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * The request to take a draft back to another state, as one change that can be undone. Exactly one
 * of {@code revision} and {@code state} is there.
 *
 * @param version of the draft that the person saw
 * @param revision number of a revision
 * @param state name of a state
 * @param rules ids of the rules that are taken back; none for all, and everything else
 */
@JsonInclude(JsonInclude.Include.NON_NULL)
public record RestoreRequest(
    @Schema(required = true) Long version, Integer revision, String state, List<String> rules) {}
