package dev.ironsieve.server.gateway;

import com.fasterxml.jackson.annotation.JsonInclude;
import java.util.List;
import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * A revision that some gateways follow first.
 *
 * @param revision 0 if every gateway follows the newest
 * @param first names of the gateways that follow it already
 * @param restAt when the others follow, ISO 8601; left out if all do
 * @param stopped why the others do not follow; left out if they will
 */
@JsonInclude(JsonInclude.Include.NON_NULL)
public record Rollout(
    @Schema(required = true) int revision,
    @Schema(required = true) List<String> first,
    String restAt,
    String stopped) {
  static final Rollout NONE = new Rollout(0, List.of(), null, null);
}
