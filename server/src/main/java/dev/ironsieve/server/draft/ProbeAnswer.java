package dev.ironsieve.server.draft;

import com.fasterxml.jackson.annotation.JsonInclude;
import java.util.List;
import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * What a draft decides for one connection.
 *
 * @param version the draft's version that was asked
 * @param line the connection, with what was filled in
 * @param verdict allow, drop, reject or caution
 * @param rule id of the rule that decides, left out for the closing rule
 * @param passed the rules above it, in order
 * @param notes remarks about the connection, such as an address outside its zone
 */
@JsonInclude(JsonInclude.Include.NON_NULL)
public record ProbeAnswer(
    @Schema(required = true) long version,
    @Schema(required = true) String line,
    @Schema(required = true) String verdict,
    String rule,
    @Schema(required = true) List<Passed> passed,
    @Schema(required = true) List<String> notes) {

  /**
   * A rule that let the connection by.
   *
   * @param parts which criteria turned it away: fromZones, fromAddresses, toZones, toAddresses,
   *     services; none if the rule is disabled
   */
  public record Passed(
      @Schema(required = true) String rule, @Schema(required = true) List<String> parts) {}
}
