package dev.ironsieve.server.audit;

import dev.ironsieve.server.jdbc.Database;
import dev.ironsieve.server.jdbc.Sql;
import dev.ironsieve.server.refusal.Refusal;
import io.quarkus.security.identity.CurrentIdentityAssociation;
import io.quarkus.security.identity.SecurityIdentity;
import io.quarkus.vertx.http.runtime.CurrentVertxRequest;
import io.vertx.ext.web.RoutingContext;
import jakarta.enterprise.context.ApplicationScoped;
import jakarta.enterprise.context.ContextNotActiveException;
import java.sql.SQLException;
import java.util.List;

/** Adds entries to the audit trail, in the transaction of the action itself, and reads them. */
@ApplicationScoped
public class AuditTrail {
  private static final String SERVER = "server";
  private static final int MOST_TEXT = 500;
  private static final int MOST_ENTRIES = 1_000;

  private final Database database;
  private final CurrentVertxRequest request;
  private final CurrentIdentityAssociation identities;

  AuditTrail(
      Database database, CurrentVertxRequest request, CurrentIdentityAssociation identities) {
    this.database = database;
    this.request = request;
    this.identities = identities;
  }

  /**
   * Adds an entry for the account of the current request, or for the server itself.
   *
   * @param subject the thing acted on
   * @param detail further words, or an empty text
   */
  public void add(Sql sql, AuditAction action, String subject, String detail) throws SQLException {
    addBy(sql, account(), action, subject, detail);
  }

  private String account() {
    try {
      SecurityIdentity identity = request.getCurrent() == null ? null : identities.getIdentity();
      return identity == null || identity.isAnonymous()
          ? SERVER
          : identity.getPrincipal().getName();
    } catch (ContextNotActiveException e) {
      return SERVER;
    }
  }

  /**
   * Adds an entry.
   *
   * @param who acts: the name of an account or of a gateway
   * @param subject the thing acted on
   * @param detail further words, or an empty text
   */
  public void addBy(Sql sql, String who, AuditAction action, String subject, String detail)
      throws SQLException {
    AuditStore.add(sql, text(who), address(), action, text(subject), text(detail));
  }

  /** A text that can be stored: short, and without NUL. */
  private static String text(String said) {
    String text = said.replace('\0', '\uFFFD');
    return text.length() <= MOST_TEXT ? text : text.substring(0, MOST_TEXT - 1) + "…";
  }

  /** The address of the client of the current request; null without one. */
  private String address() {
    try {
      RoutingContext current = request.getCurrent();
      return current == null || current.request().remoteAddress() == null
          ? null
          : current.request().remoteAddress().hostAddress();
    } catch (ContextNotActiveException e) {
      return null; // the server itself acts
    }
  }

  /**
   * Entries that fit, the newest first.
   *
   * @param text part of who, subject or detail; null for any
   * @param action in words; null for any
   * @param behind id of an entry; only older ones follow; null for the newest
   */
  public List<AuditEntry> find(String text, String action, Long behind, int most) {
    if (most < 1 || most > MOST_ENTRIES) {
      throw new Refusal.Invalid("limit", "a number from 1 to " + MOST_ENTRIES, most + "");
    }
    if (action != null && AuditAction.of(action).isEmpty()) {
      throw new Refusal.Invalid("action", "a known action", action);
    }
    return database.inTransaction(
        "reading the audit trail", sql -> AuditStore.find(sql, text, action, behind, most));
  }
}
