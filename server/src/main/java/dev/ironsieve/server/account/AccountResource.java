package dev.ironsieve.server.account;

import dev.ironsieve.server.refusal.Refusal;
import jakarta.annotation.security.RolesAllowed;
import jakarta.ws.rs.GET;
import jakarta.ws.rs.PATCH;
import jakarta.ws.rs.POST;
import jakarta.ws.rs.Path;
import java.util.List;

/** Creates, changes and lists accounts, for admins. */
@Path("/api/accounts")
@RolesAllowed(Role.MAY_ADMINISTER)
public class AccountResource {
  private final Accounts accounts;

  AccountResource(Accounts accounts) {
    this.accounts = accounts;
  }

  @GET
  public List<AccountSummary> list() {
    return accounts.all().stream().map(AccountSummary::of).toList();
  }

  @POST
  public AccountSummary add(NewAccount body) {
    Refusal.requireBody(body);
    return AccountSummary.of(
        accounts.add(body.name(), body.displayName(), Role.parse(body.role()), body.password()));
  }

  @PATCH
  @Path("/{name}")
  public AccountSummary change(String name, AccountChange body) {
    Refusal.requireBody(body);
    Role role = body.role() == null ? null : Role.parse(body.role());
    return AccountSummary.of(accounts.change(name, role, body.disabled(), body.password()));
  }
}
