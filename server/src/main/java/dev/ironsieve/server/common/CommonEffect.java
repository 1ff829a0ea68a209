package dev.ironsieve.server.common;

import com.fasterxml.jackson.annotation.JsonInclude;
import dev.ironsieve.server.draft.StandingDocument;
import java.util.Map;
import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * What the rules of a common draft do in a rulebase below it.
 *
 * @param version of the draft of the common rulebase
 * @param problem why the rules cannot be put into that rulebase; left out if they can
 * @param standings of the rules of the common rulebase, by their ids; none if there is a problem
 */
@JsonInclude(JsonInclude.Include.NON_NULL)
public record CommonEffect(
    @Schema(required = true) long version,
    String problem,
    @Schema(required = true) Map<String, StandingDocument> standings) {}
