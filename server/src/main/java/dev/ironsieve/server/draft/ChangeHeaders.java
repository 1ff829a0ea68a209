package dev.ironsieve.server.draft;

import dev.ironsieve.server.account.SessionMechanism;
import dev.ironsieve.server.http.CrossSiteGuard;
import io.quarkus.security.identity.SecurityIdentity;
import jakarta.ws.rs.HeaderParam;
import org.eclipse.microprofile.openapi.annotations.parameters.Parameter;

/** The headers of a request that changes a draft. */
public class ChangeHeaders {
  /** The page that asks. */
  @HeaderParam(CrossSiteGuard.HEADER)
  @Parameter(hidden = true)
  String client;

  /** The same for a request that is sent twice, which then acts once. */
  @HeaderParam("Idempotency-Key")
  @Parameter(hidden = true)
  String requestKey;

  public Drafts.Requester by(SecurityIdentity identity) {
    return new Drafts.Requester(SessionMechanism.account(identity), client, requestKey);
  }
}
