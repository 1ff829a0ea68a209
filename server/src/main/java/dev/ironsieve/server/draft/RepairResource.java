package dev.ironsieve.server.draft;

import dev.ironsieve.core.checks.CheckResult;
import dev.ironsieve.core.model.Rulebase;
import dev.ironsieve.core.repair.Repair;
import dev.ironsieve.server.account.Role;
import dev.ironsieve.server.draft.EditionEffect.CheckFlip;
import dev.ironsieve.server.draft.EditionEffect.VerdictEffect;
import dev.ironsieve.server.refusal.Refusal;
import jakarta.annotation.security.RolesAllowed;
import jakarta.ws.rs.GET;
import jakarta.ws.rs.Path;
import java.util.List;
import org.eclipse.microprofile.openapi.annotations.media.Schema;

/** Ways to remove what was found about a rule; each is an edit like any other. */
@Path("/api/rulebases/{rulebase}/draft/rules/{rule}/repairs/{finding}")
@RolesAllowed(Role.MAY_VIEW)
public class RepairResource {
  private final Drafts drafts;
  private final DraftQuestions questions;

  RepairResource(Drafts drafts, DraftQuestions questions) {
    this.drafts = drafts;
    this.questions = questions;
  }

  /**
   * One way.
   *
   * @param summary what it does
   * @param edit the change that does it
   * @param verdicts kinds of connections that get another verdict by it, the most first
   * @param complete whether these are all verdicts that change
   * @param checks those whose results change
   */
  public record RepairDocument(
      @Schema(required = true) String summary,
      @Schema(required = true) EditDocument edit,
      @Schema(required = true) List<VerdictEffect> verdicts,
      @Schema(required = true) boolean complete,
      @Schema(required = true) List<CheckFlip> checks) {
    static RepairDocument of(Repair repair, Rulebase base) {
      return new RepairDocument(
          repair.summary(),
          EditDocuments.write(repair.edit()),
          EditionEffect.verdicts(repair.effect()),
          repair.effect().complete(),
          CheckResult.flips(base, repair.edit().apply(base), repair.effect()).stream()
              .map(CheckFlip::of)
              .toList());
    }
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
    return questions.repairs(rulebase, rule, finding);
  }
}
