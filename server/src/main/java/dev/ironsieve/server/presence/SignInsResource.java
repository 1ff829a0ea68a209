package dev.ironsieve.server.presence;

import dev.ironsieve.core.model.DeviceState;
import dev.ironsieve.core.model.InvalidModel;
import dev.ironsieve.core.sets.Address;
import dev.ironsieve.core.sets.InvalidText;
import dev.ironsieve.server.account.Role;
import dev.ironsieve.server.refusal.Refusal;
import jakarta.annotation.security.RolesAllowed;
import jakarta.ws.rs.DELETE;
import jakarta.ws.rs.GET;
import jakarta.ws.rs.PUT;
import jakarta.ws.rs.Path;
import jakarta.ws.rs.QueryParam;
import java.time.Instant;
import java.util.List;

/** The people who are signed in, and reports of sign-ins. */
@Path("/api/sign-ins")
@RolesAllowed(Role.MAY_VIEW)
public class SignInsResource {
  /** The session id of sign-ins that are reported by REST. */
  private static final String SESSION = "told by REST";

  private final SignIns signIns;

  SignInsResource(SignIns signIns) {
    this.signIns = signIns;
  }

  /**
   * All sign-ins of a person.
   *
   * @param person the directory id
   */
  @GET
  public List<SignedIn> of(@QueryParam("person") String person) {
    Refusal.require(person, "person", "the directory id of a person");
    return signIns.of(person).stream()
        .map(
            s ->
                new SignedIn(
                    s.person(),
                    s.address().toString(),
                    s.device() == null ? null : s.device().toString(),
                    s.since().toString()))
        .toList();
  }

  @PUT
  @Path("/{address}")
  @RolesAllowed(Role.MAY_EDIT)
  public void in(String address, SignInReport body) {
    Refusal.requireBody(body);
    if (body.person() == null || body.person().isBlank()) {
      throw new Refusal.Invalid("$.person", "the directory id of a person", "nothing");
    }
    signIns.in(body.person(), address(address), device(body.device()), Instant.now(), SESSION);
  }

  @DELETE
  @Path("/{address}")
  @RolesAllowed(Role.MAY_EDIT)
  public void out(String address) {
    Address where = address(address);
    signIns.at(where).ifPresent(there -> signIns.out(where, there.session()));
  }

  private static DeviceState device(String text) {
    try {
      return text == null ? null : DeviceState.parse(text);
    } catch (InvalidModel e) {
      throw new Refusal.Invalid("$.device", e.expected(), e.found());
    }
  }

  private static Address address(String text) {
    try {
      return Address.parse(text);
    } catch (InvalidText e) {
      throw new Refusal.Invalid("address", e.expected(), '"' + text + '"');
    }
  }
}
