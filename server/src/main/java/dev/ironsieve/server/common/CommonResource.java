package dev.ironsieve.server.common;

import dev.ironsieve.server.account.Role;
import dev.ironsieve.server.draft.ChangeHeaders;
import dev.ironsieve.server.refusal.Refusal;
import io.quarkus.security.identity.SecurityIdentity;
import jakarta.annotation.security.RolesAllowed;
import jakarta.ws.rs.BeanParam;
import jakarta.ws.rs.GET;
import jakarta.ws.rs.PUT;
import jakarta.ws.rs.Path;
import jakarta.ws.rs.core.Context;
import java.util.List;

/** The tree of common rulebases. */
@Path("/api/rulebases/{rulebase}")
@RolesAllowed(Role.MAY_VIEW)
public class CommonResource {
  private final CommonRulebases rulebases;
  private final CommonEffects effects;

  CommonResource(CommonRulebases rulebases, CommonEffects effects) {
    this.rulebases = rulebases;
    this.effects = effects;
  }

  /** The rulebases that a common rulebase reaches, with their gateways. */
  @GET
  @Path("/below")
  public List<BelowDocument> below(long rulebase) {
    return rulebases.documents(rulebase);
  }

  /** What the draft of a common rulebase does in a rulebase below it. */
  @GET
  @Path("/below/{other}")
  public CommonEffect effect(long rulebase, long other) {
    return effects.of(rulebase, other);
  }

  /** Puts the draft below a common rulebase, at its newest revision. */
  @PUT
  @Path("/draft/common")
  @RolesAllowed(Role.MAY_EDIT)
  public void choose(
      long rulebase,
      CommonRequest body,
      @BeanParam ChangeHeaders headers,
      @Context SecurityIdentity identity) {
    Refusal.requireBody(body);
    Refusal.require(body.version(), "$.version", "a whole number");
    rulebases.choose(rulebase, body, headers.by(identity));
  }
}
