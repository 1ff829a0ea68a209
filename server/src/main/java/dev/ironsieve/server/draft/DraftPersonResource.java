package dev.ironsieve.server.draft;

import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.reach.ReachAnswer;
import dev.ironsieve.core.space.Space;
import dev.ironsieve.core.text.ConnectionLine;
import dev.ironsieve.server.account.Role;
import dev.ironsieve.server.http.Problem;
import jakarta.annotation.security.RolesAllowed;
import jakarta.ws.rs.GET;
import jakarta.ws.rs.Path;
import java.util.List;
import java.util.Map;
import org.eclipse.microprofile.openapi.annotations.media.Schema;

/** What one rulebase's draft means for one person. */
@Path("/api/rulebases/{rulebase}/draft/people/{person}")
@RolesAllowed(Role.MAY_VIEW)
public class DraftPersonResource {
  private final Drafts drafts;

  DraftPersonResource(Drafts drafts) {
    this.drafts = drafts;
  }

  /**
   * The rules that can ever decide for a person, in their order, the closing rule last.
   *
   * @param complete whether these are all; if not, the budget of work ran out
   */
  public record PersonRules(
      @Schema(required = true) List<PersonRule> rules, @Schema(required = true) boolean complete) {}

  /**
   * One of these rules.
   *
   * @param id nothing for the closing rule
   * @param to the far ends for which it decides some connection of theirs, in words
   * @param witness one such connection
   */
  public record PersonRule(
      @Schema(required = true) String verdict,
      String id,
      @Schema(required = true) String to,
      @Schema(required = true) String witness) {}

  /**
   * @param person as rules call them
   */
  @GET
  public PersonRules rules(long rulebase, String person) {
    boolean known =
        drafts
            .rulebase(rulebase)
            .vocabulary(Coordinate.PERSON)
            .filter(vocabulary -> vocabulary.values().contains(person))
            .isPresent();
    if (!known) {
      throw Problem.of(404, "This draft knows nobody called \"" + person + "\".");
    }
    Rule pattern =
        Rule.matchingAll("question", "question", Verdict.ALLOW)
            .asking(Map.of(Coordinate.PERSON, Criterion.of(person)));
    ReachAnswer answer = drafts.reach(rulebase, pattern, Space.TO);
    return new PersonRules(
        answer.deciders().stream()
            .map(
                decider ->
                    new PersonRule(
                        decider.verdict().word(),
                        decider.rule() == null ? null : decider.rule().id(),
                        decider.values(),
                        ConnectionLine.format(decider.witness())))
            .toList(),
        answer.complete());
  }
}
