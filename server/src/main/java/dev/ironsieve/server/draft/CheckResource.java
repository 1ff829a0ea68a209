package dev.ironsieve.server.draft;

import dev.ironsieve.server.account.Role;
import jakarta.annotation.security.RolesAllowed;
import jakarta.ws.rs.GET;
import jakarta.ws.rs.Path;
import java.util.List;

/** The results of a draft's checks; edits create and change checks. */
@Path("/api/rulebases/{rulebase}/draft/checks")
@RolesAllowed(Role.MAY_VIEW)
public class CheckResource {
  private final DraftQuestions questions;

  CheckResource(DraftQuestions questions) {
    this.questions = questions;
  }

  /** Each of them, in their order. */
  @GET
  public List<CheckState> run(long rulebase) {
    return questions.checks(rulebase).stream().map(CheckState::of).toList();
  }
}
