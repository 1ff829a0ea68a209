package dev.ironsieve.server.accepted;

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

/** The accepted findings of a draft. */
@Path("/api/rulebases/{rulebase}/draft/accepted")
@RolesAllowed(Role.MAY_VIEW)
public class AcceptedFindingResource {
  private final AcceptedFindings findings;

  AcceptedFindingResource(AcceptedFindings findings) {
    this.findings = findings;
  }

  /** The findings that the draft has and that are accepted as they are. */
  @GET
  public List<AcceptedFinding> all(long rulebase) {
    return findings.of(rulebase);
  }

  @POST
  @RolesAllowed(Role.MAY_EDIT)
  public void accept(long rulebase, NewAcceptance body, @Context SecurityIdentity identity) {
    Refusal.requireBody(body);
    findings.accept(rulebase, body, SessionMechanism.account(identity));
  }

  /**
   * Lets a finding count again.
   *
   * @param rule id of the rule
   * @param kind of the finding
   */
  @DELETE
  @Path("/{rule}/{kind}")
  @RolesAllowed(Role.MAY_EDIT)
  public void withdraw(long rulebase, String rule, String kind) {
    findings.withdraw(rulebase, rule, kind);
  }
}
