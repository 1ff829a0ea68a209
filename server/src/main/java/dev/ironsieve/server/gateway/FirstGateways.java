package dev.ironsieve.server.gateway;

import com.fasterxml.jackson.annotation.JsonInclude;
import java.util.List;
import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * The gateways that follow a revision before the others do.
 *
 * @param gateways their ids, at least one
 * @param restAfterMinutes after how many minutes the others follow, if these have it in force by
 *     then and none of them failed; 1 to 10080
 */
@JsonInclude(JsonInclude.Include.NON_NULL)
public record FirstGateways(
    @Schema(required = true) List<Long> gateways,
    @Schema(required = true) Integer restAfterMinutes) {}
