package dev.ironsieve.server.gateway;

import dev.ironsieve.server.account.Role;
import dev.ironsieve.server.account.SessionMechanism;
import dev.ironsieve.server.refusal.Refusal;
import io.quarkus.security.identity.SecurityIdentity;
import jakarta.annotation.security.RolesAllowed;
import jakarta.ws.rs.DELETE;
import jakarta.ws.rs.GET;
import jakarta.ws.rs.POST;
import jakarta.ws.rs.Path;
import jakarta.ws.rs.core.Context;
import java.util.List;

/** The gateways of a rulebase. */
@Path("/api/rulebases/{rulebase}/gateways")
@RolesAllowed(Role.MAY_VIEW)
public class GatewayResource {
  private final Gateways gateways;

  GatewayResource(Gateways gateways) {
    this.gateways = gateways;
  }

  /** By name. */
  @GET
  public List<GatewaySummary> list(long rulebase) {
    return gateways.all(rulebase);
  }

  @POST
  @RolesAllowed(Role.MAY_ADMINISTER)
  public EnrolmentToken add(long rulebase, NewGateway body, @Context SecurityIdentity identity) {
    Refusal.requireBody(body);
    return gateways.add(rulebase, body.name(), SessionMechanism.account(identity).id());
  }

  @DELETE
  @Path("/{gateway}")
  @RolesAllowed(Role.MAY_ADMINISTER)
  public void revoke(long rulebase, long gateway) {
    gateways.revoke(rulebase, gateway);
  }
}
