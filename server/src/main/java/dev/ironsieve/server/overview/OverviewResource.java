package dev.ironsieve.server.overview;

import dev.ironsieve.server.account.Role;
import jakarta.annotation.security.RolesAllowed;
import jakarta.ws.rs.GET;
import jakarta.ws.rs.Path;

/** What needs attention on a rulebase. */
@Path("/api/rulebases/{rulebase}/overview")
@RolesAllowed(Role.MAY_VIEW)
public class OverviewResource {
  private final Overviews overviews;

  OverviewResource(Overviews overviews) {
    this.overviews = overviews;
  }

  @GET
  public Overview overview(long rulebase) {
    return overviews.of(rulebase);
  }
}
