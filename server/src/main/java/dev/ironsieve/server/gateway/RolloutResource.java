package dev.ironsieve.server.gateway;

import dev.ironsieve.server.account.Role;
import jakarta.annotation.security.RolesAllowed;
import jakarta.ws.rs.GET;
import jakarta.ws.rs.POST;
import jakarta.ws.rs.Path;

/** The revision that some gateways of a rulebase follow first. */
@Path("/api/rulebases/{rulebase}/rollout")
@RolesAllowed(Role.MAY_VIEW)
public class RolloutResource {
  private final Rollouts rollouts;

  RolloutResource(Rollouts rollouts) {
    this.rollouts = rollouts;
  }

  @GET
  public Rollout rollout(long rulebase) {
    return rollouts.of(rulebase);
  }

  /** Lets the other gateways follow now. */
  @POST
  @Path("/finish")
  @RolesAllowed(Role.MAY_PUBLISH)
  public void finish(long rulebase) {
    rollouts.finish(rulebase);
  }

  /** Keeps the other gateways on the revision before. */
  @POST
  @Path("/stop")
  @RolesAllowed(Role.MAY_PUBLISH)
  public void stop(long rulebase) {
    rollouts.stop(rulebase);
  }
}
