package dev.ironsieve.server.draft;

import dev.ironsieve.core.catalogue.Catalogue;
import dev.ironsieve.core.edit.Edit;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Rulebase;
import dev.ironsieve.core.model.Vocabulary;
import dev.ironsieve.server.account.Role;
import dev.ironsieve.server.account.SessionMechanism;
import dev.ironsieve.server.catalogue.Editions;
import dev.ironsieve.server.http.CrossSiteGuard;
import dev.ironsieve.server.http.Problem;
import io.quarkus.security.identity.SecurityIdentity;
import jakarta.annotation.security.RolesAllowed;
import jakarta.ws.rs.GET;
import jakarta.ws.rs.HeaderParam;
import jakarta.ws.rs.PUT;
import jakarta.ws.rs.Path;
import jakarta.ws.rs.core.Context;
import org.eclipse.microprofile.openapi.annotations.media.Schema;
import org.eclipse.microprofile.openapi.annotations.parameters.Parameter;

/** The edition of the catalogue that one rulebase's draft has. */
@Path("/api/rulebases/{rulebase}/draft/catalogue/{edition}")
@RolesAllowed(Role.MAY_VIEW)
public class DraftCatalogueResource {
  private final Drafts drafts;
  private final Editions editions;

  DraftCatalogueResource(Drafts drafts, Editions editions) {
    this.drafts = drafts;
    this.editions = editions;
  }

  /**
   * @param version of the draft that the person saw
   */
  public record Taking(@Schema(required = true) Long version) {}

  /** What taking an edition would change; nothing is changed. */
  @GET
  public EditionEffect effect(long rulebase, String edition) {
    Catalogue after = editions.edition(edition);
    Rulebase base = drafts.rulebase(rulebase);
    String pinned =
        base.vocabulary(Coordinate.APPLICATION)
            .map(Vocabulary::edition)
            .orElseThrow(
                () -> Problem.of(409, "This rulebase has no catalogue yet; just take one."));
    return EditionEffect.of(base, editions.edition(pinned), after);
  }

  /** Takes an edition into the draft. */
  @PUT
  @RolesAllowed(Role.MAY_EDIT)
  public ChangeDocument take(
      long rulebase,
      String edition,
      Taking body,
      @HeaderParam(CrossSiteGuard.HEADER) @Parameter(hidden = true) String client,
      @Context SecurityIdentity identity) {
    Problem.requireBody(body);
    if (body.version() == null) {
      throw Problem.invalid("$.version", "a whole number", "nothing");
    }
    Edit edit = new Edit.PutVocabulary(editions.edition(edition).vocabulary());
    return drafts.edit(rulebase, body.version(), edit, SessionMechanism.account(identity), client);
  }
}
