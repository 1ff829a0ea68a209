package dev.ironsieve.server.account;

import io.quarkus.security.identity.IdentityProviderManager;
import io.quarkus.security.identity.SecurityIdentity;
import io.quarkus.security.identity.request.AuthenticationRequest;
import io.quarkus.security.runtime.QuarkusPrincipal;
import io.quarkus.security.runtime.QuarkusSecurityIdentity;
import io.quarkus.vertx.http.runtime.security.ChallengeData;
import io.quarkus.vertx.http.runtime.security.HttpAuthenticationMechanism;
import io.smallrye.mutiny.Uni;
import io.smallrye.mutiny.infrastructure.Infrastructure;
import io.vertx.core.http.Cookie;
import io.vertx.ext.web.RoutingContext;
import jakarta.enterprise.context.ApplicationScoped;
import java.util.Optional;
import java.util.Set;

/** Identifies people by their session cookie. */
@ApplicationScoped
public class SessionMechanism implements HttpAuthenticationMechanism {
  /** Name of the cookie. */
  public static final String COOKIE = "iron_sieve_session";

  /** Attribute of the identity that holds its {@link Account}. */
  static final String ACCOUNT = "account";

  private final Accounts accounts;

  SessionMechanism(Accounts accounts) {
    this.accounts = accounts;
  }

  @Override
  public Uni<SecurityIdentity> authenticate(
      RoutingContext context, IdentityProviderManager manager) {
    Cookie cookie = context.request().getCookie(COOKIE);
    if (cookie == null || cookie.getValue().length() > 100) {
      return Uni.createFrom().nullItem();
    }
    return Uni.createFrom()
        .item(() -> accounts.bySession(cookie.getValue()).map(SessionMechanism::identity))
        .runSubscriptionOn(Infrastructure.getDefaultExecutor())
        .map(found -> found.orElse(null));
  }

  private static SecurityIdentity identity(Account account) {
    return QuarkusSecurityIdentity.builder()
        .setPrincipal(new QuarkusPrincipal(account.name()))
        .addRoles(account.role().included())
        .addAttribute(ACCOUNT, account)
        .build();
  }

  /** The account behind {@code identity}; only where a role was asked for. */
  public static Account account(SecurityIdentity identity) {
    return Optional.<Account>ofNullable(identity.getAttribute(ACCOUNT)).orElseThrow();
  }

  @Override
  public Uni<ChallengeData> getChallenge(RoutingContext context) {
    return Uni.createFrom().item(new ChallengeData(401, null, null));
  }

  @Override
  public Set<Class<? extends AuthenticationRequest>> getCredentialTypes() {
    return Set.of();
  }
}
