package dev.ironsieve.server.draft;

import com.fasterxml.jackson.annotation.JsonInclude;
import dev.ironsieve.core.matcher.Stage;
import dev.ironsieve.core.model.Rule;
import java.util.List;
import java.util.Locale;
import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * The answer to a probe of a draft.
 *
 * @param version the draft's version that was asked
 * @param line the connection, with the coordinates that the server filled in
 * @param verdict allow, drop, reject or caution
 * @param rule id of the rule that decides, left out for the default rule. For an incomplete
 *     connection the answer for nobody signed in, an unknown device, no site and an unidentified
 *     application
 * @param certain whether every connection that agrees with the line gets the verdict
 * @param unless the other rules that may decide an incomplete connection, in order
 * @param complete whether these are all; if not, the work limit was reached
 * @param handling the other effects of the rule that decides
 * @param passedCount the number of the rules above it
 * @param passed the nearest of these, in order
 * @param stages the decision at each stage, up to the one that settles it
 * @param changes the nearest changes of one rule that would give the connection the other effect
 * @param notes remarks about the connection, such as an address outside its zone
 */
@JsonInclude(JsonInclude.Include.NON_NULL)
public record ProbeAnswer(
    @Schema(required = true) long version,
    @Schema(required = true) String line,
    @Schema(
            required = true,
            enumeration = {"allow", "drop", "reject", "caution"})
        String verdict,
    String rule,
    @Schema(required = true) boolean certain,
    @Schema(required = true) List<Unless> unless,
    @Schema(required = true) boolean complete,
    @Schema(required = true) Handled handling,
    @Schema(required = true) int passedCount,
    @Schema(required = true) List<Passed> passed,
    @Schema(required = true) List<AtStage> stages,
    @Schema(required = true) List<NearestChange> changes,
    @Schema(required = true) List<String> notes) {

  /**
   * A change of one rule that would let the connection through, or refuse it.
   *
   * @param kind widened (all its criteria but one hold), enabled, moved above the rule that
   *     decides, or removed, which means that an exception of it would do as well
   * @param rule id of the rule that is changed
   * @param part the criterion that does not hold, as in {@link Passed}
   * @param verdict that the connection would get
   * @param by id of the rule that would decide; left out for the default rule
   */
  @JsonInclude(JsonInclude.Include.NON_NULL)
  public record NearestChange(
      @Schema(
              required = true,
              enumeration = {"widened", "enabled", "moved above", "removed"})
          String kind,
      @Schema(required = true) String rule,
      String part,
      @Schema(
              required = true,
              enumeration = {"allow", "drop", "reject", "caution"})
          String verdict,
      String by) {}

  /**
   * A rule that decides some of the connections that agree with the line.
   *
   * @param rule its id, left out for the default rule
   * @param parts the unsaid parts of the connection that it depends on, as in {@link Passed}; none
   *     if it decides whatever no rule above asks for
   * @param line a connection that it decides
   */
  @JsonInclude(JsonInclude.Include.NON_NULL)
  public record Unless(
      @Schema(
              required = true,
              enumeration = {"allow", "drop", "reject", "caution"})
          String verdict,
      String rule,
      @Schema(required = true) List<String> parts,
      @Schema(required = true) String line) {}

  /**
   * The effects of the rule that decides, besides its verdict.
   *
   * @param log off, start, end or both
   * @param opening sealed or opened
   * @param ratePlan name of its rate plan, if that has an effect
   * @param notice name of its notice, if people see it
   */
  @JsonInclude(JsonInclude.Include.NON_NULL)
  public record Handled(
      @Schema(required = true) String log,
      @Schema(required = true) String opening,
      String ratePlan,
      String notice) {
    static Handled of(Rule rule) {
      return rule == null
          ? new Handled("both", "sealed", null, null)
          : new Handled(
              word(rule.logging()),
              word(rule.opening()),
              rule.verdict().letsThrough() ? rule.ratePlan() : null,
              rule.notice());
    }

    private static String word(Enum<?> constant) {
      return constant.name().toLowerCase(Locale.ROOT);
    }
  }

  /**
   * The verdict on the connection at one stage.
   *
   * @param stage first packet, handshake or content
   * @param verdict the verdict of that case
   * @param rule id of the rule that decides whatever else becomes known, left out for the closing
   *     rule
   * @param open ids of the rules above it that wait for more
   * @param settled whether nothing is waited for any more
   * @param sealed whether the content stays sealed, so that nothing more is ever known
   */
  @JsonInclude(JsonInclude.Include.NON_NULL)
  public record AtStage(
      @Schema(required = true) String stage,
      @Schema(
              required = true,
              enumeration = {"allow", "drop", "reject", "caution"})
          String verdict,
      String rule,
      @Schema(required = true) List<String> open,
      @Schema(required = true) boolean settled,
      @Schema(required = true) boolean sealed) {
    static AtStage of(Stage.Answer answer) {
      return new AtStage(
          answer.stage().word(),
          answer.verdict().word(),
          answer.decides() == null ? null : answer.decides().id(),
          answer.open().stream().map(Rule::id).toList(),
          answer.settled(),
          answer.sealed());
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
