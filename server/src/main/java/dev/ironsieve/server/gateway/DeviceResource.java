package dev.ironsieve.server.gateway;

import dev.ironsieve.server.refusal.Refusal;
import io.smallrye.common.annotation.RunOnVirtualThread;
import jakarta.annotation.security.PermitAll;
import jakarta.ws.rs.GET;
import jakarta.ws.rs.HeaderParam;
import jakarta.ws.rs.POST;
import jakarta.ws.rs.Path;
import jakarta.ws.rs.Produces;
import jakarta.ws.rs.QueryParam;
import jakarta.ws.rs.core.HttpHeaders;
import jakarta.ws.rs.core.MediaType;
import org.eclipse.microprofile.openapi.annotations.media.Schema;
import org.eclipse.microprofile.openapi.annotations.parameters.Parameter;

/** What a gateway asks and reports. It signs each request with its secret, {@code Bearer}. */
@Path("/api/gateway")
@PermitAll
public class DeviceResource {
  private final Gateways gateways;

  DeviceResource(Gateways gateways) {
    this.gateways = gateways;
  }

  /** Enrols with a token, which is valid once. */
  @POST
  @Path("/enrol")
  public Enrolled enrol(Enrolment body) {
    Refusal.requireBody(body);
    return gateways.enrol(Refusal.require(body.token(), "$.token", "the token"));
  }

  /**
   * The revision to follow. If the gateway has it already, the answer waits for another one, up to
   * 25 seconds.
   *
   * @param has the digest that the gateway has
   */
  @GET
  @Path("/desired")
  @RunOnVirtualThread
  public DesiredRevision desired(
      @HeaderParam(HttpHeaders.AUTHORIZATION) @Parameter(hidden = true) String authorization,
      @QueryParam("has") String has) {
    return gateways.desired(authorization, has);
  }

  /** The document of a revision, byte for byte as its digest was made. */
  @GET
  @Path("/revisions/{digest}")
  @Produces(MediaType.APPLICATION_JSON)
  @Schema(implementation = Object.class)
  public String document(
      @HeaderParam(HttpHeaders.AUTHORIZATION) @Parameter(hidden = true) String authorization,
      String digest) {
    return gateways.document(authorization, digest);
  }

  /** Reports how far the gateway is with a revision. */
  @POST
  @Path("/report")
  public void report(
      @HeaderParam(HttpHeaders.AUTHORIZATION) @Parameter(hidden = true) String authorization,
      GatewayReport body) {
    Refusal.requireBody(body);
    Refusal.require(body.revision(), "$.revision", "a whole number");
    Refusal.require(body.digest(), "$.digest", "a SHA-256");
    Refusal.require(body.state(), "$.state", "a state");
    gateways.report(authorization, body);
  }
}
