package dev.ironsieve.server.draft;

import dev.ironsieve.server.account.Role;
import jakarta.annotation.security.RolesAllowed;
import jakarta.ws.rs.GET;
import jakarta.ws.rs.Path;

/** Where a rule can stand, and what would change. */
@Path("/api/rulebases/{rulebase}/draft/rules/{rule}/placement")
@RolesAllowed(Role.MAY_VIEW)
public class PlacementResource {
  private final DraftQuestions questions;

  PlacementResource(DraftQuestions questions) {
    this.questions = questions;
  }

  /**
   * The effect of moving a rule to every other place.
   *
   * @param rule its id
   */
  @GET
  public PlacementDocument placement(long rulebase, String rule) {
    return questions.placement(rulebase, rule);
  }
}
