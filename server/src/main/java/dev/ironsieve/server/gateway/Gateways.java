package dev.ironsieve.server.gateway;

import dev.ironsieve.core.model.Names;
import dev.ironsieve.core.model.RulebaseKind;
import dev.ironsieve.formats.Digest;
import dev.ironsieve.server.audit.AuditAction;
import dev.ironsieve.server.audit.AuditTrail;
import dev.ironsieve.server.draft.Drafts;
import dev.ironsieve.server.draft.Publications;
import dev.ironsieve.server.jdbc.Database;
import dev.ironsieve.server.refusal.Refusal;
import jakarta.enterprise.context.ApplicationScoped;
import java.security.SecureRandom;
import java.time.Duration;
import java.time.Instant;
import java.util.Base64;
import java.util.HexFormat;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.Future;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;

/** Adds and revokes gateways, and tells each the revision that it has to follow. */
@ApplicationScoped
public class Gateways {
  private static final Set<String> STATES = Set.of("fetching", "verified", "in force", "refused");
  private static final int MOST_REASON = 300;
  private static final int DIGEST_HEX = 64;

  /** The longest that a question for another revision waits. */
  private static final Duration LONGEST_POLL = Duration.ofSeconds(25);

  /** After so long it looks again, since another server may have published. */
  private static final Duration BETWEEN_LOOKS = Duration.ofSeconds(5);

  private final SecureRandom random = new SecureRandom();
  private final Database database;
  private final Drafts drafts;
  private final Publications publications;
  private final AuditTrail trail;

  Gateways(Database database, Drafts drafts, Publications publications, AuditTrail trail) {
    this.database = database;
    this.drafts = drafts;
    this.publications = publications;
    this.trail = trail;
  }

  /** The gateways of a rulebase, by name. */
  public List<GatewaySummary> all(long rulebase) {
    drafts.state(rulebase); // refuses an unknown one
    Instant now = Instant.now();
    return database
        .inTransaction("listing gateways", sql -> GatewayStore.all(sql, rulebase))
        .stream()
        .map(row -> GatewaySummary.of(row, now))
        .toList();
  }

  /**
   * Adds a gateway, which enrols with the token; only its hash is stored.
   *
   * @param account id of who adds it, or null for the demo
   */
  public EnrolmentToken add(long rulebase, String name, Long account) {
    String checked = Names.checkTitle("gateway", name);
    if (drafts.rulebase(rulebase).kind() == RulebaseKind.COMMON) {
      throw new Refusal.WrongState(
          "No gateway follows a common rulebase. Add it to a rulebase below.");
    }
    String token = secret();
    long id =
        database
            .inTransaction(
                "adding a gateway",
                sql -> {
                  Optional<Long> added =
                      GatewayStore.add(sql, checked, rulebase, Digest.of(token), account);
                  if (added.isPresent()) {
                    trail.add(sql, AuditAction.GATEWAY_ADDED, checked, "");
                  }
                  return added;
                })
            .orElseThrow(
                () ->
                    new Refusal.WrongState(
                        "There is a gateway \"" + checked + "\" already. Name it anew."));
    return new EnrolmentToken(id, token);
  }

  private String secret() {
    byte[] bytes = new byte[32];
    random.nextBytes(bytes);
    return Base64.getUrlEncoder().withoutPadding().encodeToString(bytes);
  }

  /** Ends the trust in a gateway; it keeps its last revision, but gets no other. */
  void revoke(long rulebase, long gateway) {
    boolean revoked =
        database.inTransaction(
            "revoking a gateway",
            sql -> {
              boolean done = GatewayStore.revoke(sql, rulebase, gateway);
              if (done) {
                String name = GatewayStore.name(sql, gateway);
                trail.add(sql, AuditAction.GATEWAY_REVOKED, name, "");
              }
              return done;
            });
    if (!revoked) {
      throw new Refusal.NotFound("There is no such gateway.");
    }
  }

  /** Enrols a gateway with its token, which is valid once. */
  Enrolled enrol(String token) {
    String secret = secret();
    StoredGateway gateway =
        database
            .inTransaction(
                "enrolling a gateway",
                sql -> {
                  Optional<StoredGateway> enrolled =
                      GatewayStore.enrol(sql, Digest.of(token), Digest.of(secret));
                  if (enrolled.isPresent()) {
                    String name = enrolled.get().name();
                    trail.addBy(sql, name, AuditAction.GATEWAY_ENROLLED, name, "");
                  }
                  return enrolled;
                })
            .orElseThrow(() -> new Refusal.NotSignedIn("This token is not valid, or was used."));
    return new Enrolled(gateway.name(), secret);
  }

  /**
   * The gateway of a request.
   *
   * @param authorization the header, {@code Bearer} and the secret
   */
  StoredGateway authenticated(String authorization) {
    if (authorization == null || !authorization.startsWith("Bearer ")) {
      throw new Refusal.NotSignedIn("A gateway signs its requests with its secret.");
    }
    byte[] hash = Digest.of(authorization.substring("Bearer ".length()).strip());
    return database
        .inTransaction("looking up a gateway", sql -> GatewayStore.bySecret(sql, hash))
        .orElseThrow(() -> new Refusal.NotSignedIn("No gateway has this secret."));
  }

  /**
   * The revision that a gateway has to follow; waits for another one if it has that already.
   *
   * @param has the digest that it has, or null
   */
  DesiredRevision desired(String authorization, String has) {
    Instant end = Instant.now().plus(LONGEST_POLL);
    StoredGateway gateway = authenticated(authorization);
    database.inTransaction(
        "noting a gateway",
        sql -> {
          GatewayStore.seen(sql, gateway.id());
          return null;
        });
    while (true) {
      Future<Void> next = publications.next(gateway.rulebase());
      StoredGateway now = authenticated(authorization);
      if (!hex(now).equals(has) || !Instant.now().isBefore(end) || !awaits(next)) {
        return new DesiredRevision(now.newest(), hex(now));
      }
    }
  }

  private static String hex(StoredGateway gateway) {
    return HexFormat.of().formatHex(gateway.digest());
  }

  /** Waits for a publication, but not for long; false if the server stops. */
  private static boolean awaits(Future<Void> next) {
    try {
      next.get(BETWEEN_LOOKS.toMillis(), TimeUnit.MILLISECONDS);
    } catch (TimeoutException e) {
      return true;
    } catch (ExecutionException e) {
      throw new IllegalStateException("a publication never fails", e);
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      return false;
    }
    return true;
  }

  /** The document with a digest, if it is a revision of the gateway's rulebase. */
  String document(String authorization, String digest) {
    StoredGateway gateway = authenticated(authorization);
    byte[] wanted = digest(digest, "digest");
    return database
        .inTransaction(
            "reading a revision", sql -> GatewayStore.content(sql, gateway.rulebase(), wanted))
        .orElseThrow(() -> new Refusal.NotFound("There is no revision with this digest."));
  }

  private static byte[] digest(String hex, String place) {
    try {
      if (hex.length() == DIGEST_HEX) {
        return HexFormat.of().parseHex(hex);
      }
    } catch (IllegalArgumentException e) {
      // answered below
    }
    throw new Refusal.Invalid(place, "a SHA-256 as 64 hexadecimal digits", hex);
  }

  /**
   * Takes the report of a gateway.
   *
   * @throws Refusal.WrongState if it reports a revision that it was not given
   */
  void report(String authorization, GatewayReport report) {
    StoredGateway gateway = authenticated(authorization);
    if (!STATES.contains(report.state())) {
      throw new Refusal.Invalid(
          "$.state", "fetching, verified, in force or refused", report.state());
    }
    String reason = report.reason();
    if (reason != null && (reason.length() > MOST_REASON || !Names.isPrintable(reason))) {
      throw new Refusal.Invalid(
          "$.reason", "at most " + MOST_REASON + " printable characters", "others");
    }
    byte[] digest = digest(report.digest(), "$.digest");
    boolean known =
        database.inTransaction(
            "storing the report of a gateway",
            sql -> {
              boolean has = GatewayStore.has(sql, gateway.rulebase(), report.revision(), digest);
              if (has) {
                GatewayStore.report(sql, gateway.id(), report.revision(), report.state(), reason);
              }
              return has;
            });
    if (!known) {
      throw new Refusal.WrongState(
          "The rulebase of this gateway has no revision %d with this digest."
              .formatted(report.revision()));
    }
  }
}
