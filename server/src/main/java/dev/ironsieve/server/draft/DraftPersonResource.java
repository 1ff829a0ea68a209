package dev.ironsieve.server.draft;

import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.space.Space;
import dev.ironsieve.server.account.Role;
import dev.ironsieve.server.refusal.Refusal;
import jakarta.annotation.security.RolesAllowed;
import jakarta.ws.rs.GET;
import jakarta.ws.rs.Path;
import java.util.Map;

/** What one rulebase's draft means for one person. */
@Path("/api/rulebases/{rulebase}/draft/people/{person}")
@RolesAllowed(Role.MAY_VIEW)
public class DraftPersonResource {
  private final Drafts drafts;
  private final DraftQuestions questions;

  DraftPersonResource(Drafts drafts, DraftQuestions questions) {
    this.drafts = drafts;
    this.questions = questions;
  }

  /**
   * The rules that can ever decide for them; the ends are those that they can ask for.
   *
   * @param person as rules call them
   */
  @GET
  public DecidingRules rules(long rulebase, String person) {
    boolean known =
        drafts
            .rulebase(rulebase)
            .vocabulary(Coordinate.PERSON)
            .filter(vocabulary -> vocabulary.values().contains(person))
            .isPresent();
    if (!known) {
      throw new Refusal.NotFound("This draft knows nobody called \"" + person + "\".");
    }
    Rule pattern =
        Rule.matchingAll("question", "question", Verdict.ALLOW)
            .asking(Map.of(Coordinate.PERSON, Criterion.of(person)));
    return DecidingRules.of(questions.reach(rulebase, pattern, Space.TO));
  }
}
