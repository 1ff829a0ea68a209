package dev.ironsieve.server.draft;

import dev.ironsieve.core.difference.Aspect;
import dev.ironsieve.core.difference.Difference;
import dev.ironsieve.core.difference.Differences;
import dev.ironsieve.core.edit.Edit;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.server.account.Role;
import dev.ironsieve.server.refusal.Refusal;
import jakarta.annotation.security.RolesAllowed;
import jakarta.ws.rs.POST;
import jakarta.ws.rs.Path;

/** What an edit would change, before it is made. */
@Path("/api/rulebases/{rulebase}/draft/effect")
@RolesAllowed(Role.MAY_EDIT)
public class EditEffectResource {
  private final DraftQuestions questions;

  EditEffectResource(DraftQuestions questions) {
    this.questions = questions;
  }

  /** What an edit of the rules would change; nothing is changed. */
  @POST
  public EditEffect effect(long rulebase, EditDocument body) {
    Refusal.requireBody(body);
    Edit edit = EditDocuments.read(body, "$");
    boolean ofRules =
        edit instanceof Edit.ReplaceRules
            || edit instanceof Edit.InsertRules
            || edit instanceof Edit.DeleteRules
            || edit instanceof Edit.MoveRules;
    if (!ofRules) {
      throw new Refusal.Invalid("$.kind", "an edit of rules", body.kind());
    }
    return questions.askAnalysed(
        rulebase,
        asked -> {
          Rulebase before = asked.draft().rulebase();
          Rulebase after = edit.apply(before);
          Difference difference =
              Differences.between(
                  asked.analysis().index(), before, after, Aspect.VERDICT, Differences.STEPS);
          return EditEffect.of(difference, before, after);
        });
  }
}
