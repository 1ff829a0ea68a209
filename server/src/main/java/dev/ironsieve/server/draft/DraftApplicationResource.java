package dev.ironsieve.server.draft;

import dev.ironsieve.server.account.Role;
import jakarta.annotation.security.RolesAllowed;
import jakarta.ws.rs.GET;
import jakarta.ws.rs.Path;

/** The rules of a draft that decide about one application. */
@Path("/api/rulebases/{rulebase}/draft/applications/{application}")
@RolesAllowed(Role.MAY_VIEW)
public class DraftApplicationResource {
  private final DecidingRulesQuestion question;

  DraftApplicationResource(DecidingRulesQuestion question) {
    this.question = question;
  }

  /**
   * The rules that can ever decide on it, on its usual ports where it has some, since on any other
   * every rule might; the ends are those from which it is used.
   *
   * @param application its name in the draft's edition of the catalogue
   */
  @GET
  public DecidingRules rules(long rulebase, String application) {
    return question.forApplication(rulebase, application);
  }
}
