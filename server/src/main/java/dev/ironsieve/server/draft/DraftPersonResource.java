package dev.ironsieve.server.draft;

import dev.ironsieve.server.account.Role;
import jakarta.annotation.security.RolesAllowed;
import jakarta.ws.rs.GET;
import jakarta.ws.rs.Path;

/** The rules of a draft that decide about one person. */
@Path("/api/rulebases/{rulebase}/draft/people/{person}")
@RolesAllowed(Role.MAY_VIEW)
public class DraftPersonResource {
  private final DecidingRulesQuestion question;

  DraftPersonResource(DecidingRulesQuestion question) {
    this.question = question;
  }

  /**
   * The rules that can ever decide for them; the ends are those that they can ask for.
   *
   * @param person as rules call them
   */
  @GET
  public DecidingRules rules(long rulebase, String person) {
    return question.forPerson(rulebase, person);
  }
}
