package dev.ironsieve.server.draft;

import dev.ironsieve.server.account.Role;
import dev.ironsieve.server.refusal.Refusal;
import io.quarkus.security.identity.SecurityIdentity;
import jakarta.annotation.security.RolesAllowed;
import jakarta.ws.rs.BeanParam;
import jakarta.ws.rs.GET;
import jakarta.ws.rs.PUT;
import jakarta.ws.rs.Path;
import jakarta.ws.rs.core.Context;

/** The editions of feeds that one rulebase's draft has. */
@Path("/api/rulebases/{rulebase}/draft/feeds/{feed}/{edition}")
@RolesAllowed(Role.MAY_VIEW)
public class DraftFeedResource {
  private final DraftEditions editions;

  DraftFeedResource(DraftEditions editions) {
    this.editions = editions;
  }

  /** The effect of adopting an edition, also one that awaits approval; nothing is changed. */
  @GET
  public EditionEffect effect(long rulebase, String feed, String edition) {
    return editions.feedEffect(rulebase, feed, edition);
  }

  /** Adopts an edition in the draft. */
  @PUT
  @RolesAllowed(Role.MAY_EDIT)
  public ChangeDocument take(
      long rulebase,
      String feed,
      String edition,
      EditionRequest body,
      @BeanParam ChangeHeaders headers,
      @Context SecurityIdentity identity) {
    Refusal.requireBody(body);
    Refusal.require(body.version(), "$.version", "a whole number");
    return editions.adoptFeed(rulebase, body.version(), feed, edition, headers.by(identity));
  }
}
