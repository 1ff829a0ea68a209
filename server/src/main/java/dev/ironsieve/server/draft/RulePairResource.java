package dev.ironsieve.server.draft;

import dev.ironsieve.server.account.Role;
import jakarta.annotation.security.RolesAllowed;
import jakarta.ws.rs.GET;
import jakarta.ws.rs.Path;

/** Two rules side by side. */
@Path("/api/rulebases/{rulebase}/draft/rules/{rule}/beside/{other}")
@RolesAllowed(Role.MAY_VIEW)
public class RulePairResource {
  private final DraftQuestions questions;

  RulePairResource(DraftQuestions questions) {
    this.questions = questions;
  }

  /**
   * What two rules share, and what each matches alone.
   *
   * @param rule the id of one
   * @param other the id of the other
   */
  @GET
  public RulePairDocument pair(long rulebase, String rule, String other) {
    return questions.pair(rulebase, rule, other);
  }
}
