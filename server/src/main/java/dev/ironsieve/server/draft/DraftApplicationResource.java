package dev.ironsieve.server.draft;

import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.Names;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.ServiceItem;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.model.Vocabulary;
import dev.ironsieve.core.space.Space;
import dev.ironsieve.server.account.Role;
import dev.ironsieve.server.refusal.Refusal;
import jakarta.annotation.security.RolesAllowed;
import jakarta.ws.rs.GET;
import jakarta.ws.rs.Path;
import java.util.Map;

/** What one rulebase's draft means for one application. */
@Path("/api/rulebases/{rulebase}/draft/applications/{application}")
@RolesAllowed(Role.MAY_VIEW)
public class DraftApplicationResource {
  private final Drafts drafts;
  private final DraftQuestions questions;

  DraftApplicationResource(Drafts drafts, DraftQuestions questions) {
    this.drafts = drafts;
    this.questions = questions;
  }

  /**
   * The rules that can ever decide on it, on its usual ports where it has some, since on any other
   * every rule might; the ends are those from which it is used.
   *
   * @param application its name in the draft's edition of the catalogue
   */
  @GET
  public DecidingRules rules(long rulebase, String application) {
    Vocabulary applications =
        drafts
            .rulebase(rulebase)
            .vocabulary(Coordinate.APPLICATION)
            .filter(vocabulary -> vocabulary.meanings().containsKey(Names.key(application)))
            .orElseThrow(
                () ->
                    new Refusal.NotFound(
                        "This draft knows no application called \"" + application + "\"."));
    boolean hasPorts =
        applications.applications().stream()
            .filter(fact -> Names.key(fact.name()).equals(Names.key(application)))
            .anyMatch(fact -> !fact.ports().isEmpty());
    Rule any = Rule.matchingAll("question", "question", Verdict.ALLOW);
    Rule pattern =
        any.matching(
                any.fromZones(),
                any.fromAddresses(),
                any.toZones(),
                any.toAddresses(),
                hasPorts ? Criterion.of(new ServiceItem.UsualPorts()) : any.services())
            .asking(Map.of(Coordinate.APPLICATION, Criterion.of(application)));
    return DecidingRules.of(questions.reach(rulebase, pattern, Space.FROM));
  }
}
