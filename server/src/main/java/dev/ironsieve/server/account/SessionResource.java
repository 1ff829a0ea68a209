package dev.ironsieve.server.account;

import dev.ironsieve.server.refusal.Refusal;
import io.quarkus.security.identity.SecurityIdentity;
import io.vertx.core.http.HttpServerRequest;
import jakarta.annotation.security.PermitAll;
import jakarta.annotation.security.RolesAllowed;
import jakarta.ws.rs.CookieParam;
import jakarta.ws.rs.DELETE;
import jakarta.ws.rs.GET;
import jakarta.ws.rs.POST;
import jakarta.ws.rs.Path;
import jakarta.ws.rs.core.Context;
import jakarta.ws.rs.core.NewCookie;
import jakarta.ws.rs.core.Response;
import org.eclipse.microprofile.openapi.annotations.media.Content;
import org.eclipse.microprofile.openapi.annotations.media.Schema;
import org.eclipse.microprofile.openapi.annotations.responses.APIResponse;

/** Sign-in, sign-out, and creation of the first admin. */
@Path("/api")
public class SessionResource {
  private final Accounts accounts;

  SessionResource(Accounts accounts) {
    this.accounts = accounts;
  }

  @GET
  @Path("/session")
  @RolesAllowed(Role.MAY_VIEW)
  public Person person(@Context SecurityIdentity identity) {
    return Person.of(SessionMechanism.account(identity));
  }

  @POST
  @Path("/session")
  @PermitAll
  @APIResponse(
      responseCode = "200",
      content = @Content(schema = @Schema(implementation = Person.class)))
  public Response signIn(SignIn body, @Context HttpServerRequest request) {
    Refusal.requireBody(body);
    Accounts.SignedIn in =
        accounts.signIn(body.name(), body.password(), request.remoteAddress().hostAddress());
    return Response.ok(Person.of(in.account()))
        .cookie(cookie(in.token(), (int) in.lasts().toSeconds(), request))
        .build();
  }

  @DELETE
  @Path("/session")
  @PermitAll
  @APIResponse(responseCode = "204")
  public Response signOut(
      @CookieParam(SessionMechanism.COOKIE) String token, @Context HttpServerRequest request) {
    if (token != null) {
      accounts.signOut(token);
    }
    return Response.noContent().cookie(cookie("", 0, request)).build();
  }

  @POST
  @Path("/setup")
  @PermitAll
  public Person setUp(SetUp body) {
    Refusal.requireBody(body);
    return Person.of(
        accounts.setUp(body.token(), body.name(), body.displayName(), body.password()));
  }

  private static NewCookie cookie(String value, int seconds, HttpServerRequest request) {
    return new NewCookie.Builder(SessionMechanism.COOKIE)
        .value(value)
        .path("/")
        .maxAge(seconds)
        .httpOnly(true)
        .secure(request.isSSL())
        .sameSite(NewCookie.SameSite.STRICT)
        .build();
  }
}
