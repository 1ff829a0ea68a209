package dev.ironsieve.server.draft;

import dev.ironsieve.core.analysis.Finding;
import dev.ironsieve.server.account.Role;
import dev.ironsieve.server.refusal.Refusal;
import jakarta.annotation.security.RolesAllowed;
import jakarta.ws.rs.GET;
import jakarta.ws.rs.Path;
import java.util.List;

/** The repairs of findings; each is an edit. */
@Path("/api/rulebases/{rulebase}/draft/rules/{rule}/repairs/{finding}")
@RolesAllowed(Role.MAY_VIEW)
public class RepairResource {
  private final Drafts drafts;
  private final DraftQuestions questions;
  private final NarrowingQuestion narrowing;

  RepairResource(Drafts drafts, DraftQuestions questions, NarrowingQuestion narrowing) {
    this.drafts = drafts;
    this.questions = questions;
    this.narrowing = narrowing;
  }

  /**
   * The ways to remove one kind of finding; none where it takes a person's judgement.
   *
   * @param rule its id
   * @param finding its kind, such as {@code shadowed}
   */
  @GET
  public List<RepairDocument> ways(long rulebase, String rule, String finding) {
    if (drafts.rulebase(rulebase).rules().stream().noneMatch(r -> r.id().equals(rule))) {
      throw new Refusal.NotFound("There is no rule with the id \"" + rule + "\" here.");
    }
    return finding.equals(Finding.Kind.TOO_BROAD.word())
        ? narrowing.repairs(rulebase, rule)
        : questions.repairs(rulebase, rule, finding);
  }
}
