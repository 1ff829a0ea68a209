package dev.ironsieve.server.draft;

import com.fasterxml.jackson.annotation.JsonInclude;
import dev.ironsieve.core.matcher.Stage;
import dev.ironsieve.core.model.Rule;
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
 * @param stages what is done with it while more and more of it becomes known, up to the one that
 *     settles it
 * @param notes remarks about the connection, such as an address outside its zone
 */
@JsonInclude(JsonInclude.Include.NON_NULL)
public record ProbeAnswer(
    @Schema(required = true) long version,
    @Schema(required = true) String line,
    @Schema(required = true) String verdict,
    String rule,
    @Schema(required = true) List<Passed> passed,
    @Schema(required = true) List<AtStage> stages,
    @Schema(required = true) List<String> notes) {

  /**
   * What is done with the connection at one stage.
   *
   * @param stage first packet, handshake or content
   * @param verdict what is done then
   * @param rule id of the rule that decides whatever else becomes known, left out for the closing
   *     rule
   * @param open ids of the rules above it that wait for more
   * @param settled whether nothing is waited for any more
   */
  @JsonInclude(JsonInclude.Include.NON_NULL)
  public record AtStage(
      @Schema(required = true) String stage,
      @Schema(required = true) String verdict,
      String rule,
      @Schema(required = true) List<String> open,
      @Schema(required = true) boolean settled) {
    static AtStage of(Stage.Answer answer) {
      return new AtStage(
          answer.stage().word(),
          answer.verdict().word(),
          answer.decides() == null ? null : answer.decides().id(),
          answer.open().stream().map(Rule::id).toList(),
          answer.settled());
    }
  }

  /**
   * A rule that let the connection by.
   *
   * @param parts which criteria turned it away: fromZones, fromAddresses, toZones, toAddresses,
   *     services; none if the rule is disabled
   */
  public record Passed(
      @Schema(required = true) String rule, @Schema(required = true) List<String> parts) {}
}
