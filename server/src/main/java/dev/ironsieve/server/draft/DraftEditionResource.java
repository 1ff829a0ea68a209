package dev.ironsieve.server.draft;

import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.formats.document.ToModel;
import dev.ironsieve.server.account.Role;
import dev.ironsieve.server.refusal.Refusal;
import io.quarkus.security.identity.SecurityIdentity;
import jakarta.annotation.security.RolesAllowed;
import jakarta.ws.rs.BeanParam;
import jakarta.ws.rs.GET;
import jakarta.ws.rs.PUT;
import jakarta.ws.rs.Path;
import jakarta.ws.rs.core.Context;

/**
 * The editions that one rulebase's draft has: of the catalogue, by the coordinate {@code
 * application}, and of the directory, by {@code person}.
 */
@Path("/api/rulebases/{rulebase}/draft/editions/{coordinate}/{edition}")
@RolesAllowed(Role.MAY_VIEW)
public class DraftEditionResource {
  private final DraftEditions editions;

  DraftEditionResource(DraftEditions editions) {
    this.editions = editions;
  }

  /** The effect of adopting an edition; nothing is changed. */
  @GET
  public EditionEffect effect(long rulebase, String coordinate, String edition) {
    return editions.effect(rulebase, coordinate(coordinate), edition);
  }

  /** Adopts an edition in the draft. */
  @PUT
  @RolesAllowed(Role.MAY_EDIT)
  public ChangeDocument take(
      long rulebase,
      String coordinate,
      String edition,
      EditionRequest body,
      @BeanParam ChangeHeaders headers,
      @Context SecurityIdentity identity) {
    Refusal.requireBody(body);
    Refusal.require(body.version(), "$.version", "a whole number");
    return editions.adopt(
        rulebase, body.version(), coordinate(coordinate), edition, headers.by(identity));
  }

  private static Coordinate coordinate(String word) {
    Coordinate coordinate = ToModel.coordinate(word, "coordinate");
    if (coordinate != Coordinate.APPLICATION && coordinate != Coordinate.PERSON) {
      throw new Refusal.Invalid("coordinate", "application or person", word);
    }
    return coordinate;
  }
}
