package dev.ironsieve.server.common;

import com.fasterxml.jackson.annotation.JsonInclude;
import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * The request to put a draft below a common rulebase.
 *
 * @param version of the draft that the person saw
 * @param rulebase id of the common rulebase, of which the newest revision counts; none for no
 *     common rulebase
 */
@JsonInclude(JsonInclude.Include.NON_NULL)
public record CommonRequest(@Schema(required = true) Long version, Long rulebase) {}
