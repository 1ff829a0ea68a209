package dev.ironsieve.server.restore;

import dev.ironsieve.server.account.Role;
import dev.ironsieve.server.account.SessionMechanism;
import dev.ironsieve.server.draft.ChangeHeaders;
import dev.ironsieve.server.refusal.Refusal;
import io.quarkus.security.identity.SecurityIdentity;
import jakarta.annotation.security.RolesAllowed;
import jakarta.ws.rs.BeanParam;
import jakarta.ws.rs.DELETE;
import jakarta.ws.rs.GET;
import jakarta.ws.rs.POST;
import jakarta.ws.rs.Path;
import jakarta.ws.rs.core.Context;
import java.util.List;

/** The way of a draft back to a revision or a named state. */
@Path("/api/rulebases/{rulebase}")
@RolesAllowed(Role.MAY_VIEW)
public class RestoreResource {
  private final NamedStates states;
  private final Restores restores;

  RestoreResource(NamedStates states, Restores restores) {
    this.states = states;
    this.restores = restores;
  }

  /** The newest first. */
  @GET
  @Path("/draft/states")
  public List<NamedState> states(long rulebase) {
    return states.all(rulebase);
  }

  /** Gives the present state of the draft a name. */
  @POST
  @Path("/draft/states")
  @RolesAllowed(Role.MAY_EDIT)
  public void add(long rulebase, NewNamedState body, @Context SecurityIdentity identity) {
    Refusal.requireBody(body);
    Refusal.require(body.name(), "$.name", "a name");
    Refusal.require(body.version(), "$.version", "a whole number");
    states.add(rulebase, body.name(), body.version(), SessionMechanism.account(identity));
  }

  @DELETE
  @Path("/draft/states/{name}")
  @RolesAllowed(Role.MAY_EDIT)
  public void delete(long rulebase, String name) {
    states.delete(rulebase, name);
  }

  /** Takes the draft back to a revision or a named state, wholly or some rules only. */
  @POST
  @Path("/draft/restore")
  @RolesAllowed(Role.MAY_EDIT)
  public void restore(
      long rulebase,
      RestoreRequest body,
      @BeanParam ChangeHeaders headers,
      @Context SecurityIdentity identity) {
    Refusal.requireBody(body);
    Refusal.require(body.version(), "$.version", "a whole number");
    restores.restore(rulebase, body, headers.by(identity));
  }
}
