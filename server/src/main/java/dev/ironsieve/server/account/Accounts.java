package dev.ironsieve.server.account;

import dev.ironsieve.formats.Digest;
import dev.ironsieve.server.audit.AuditAction;
import dev.ironsieve.server.audit.AuditTrail;
import dev.ironsieve.server.jdbc.Database;
import dev.ironsieve.server.jdbc.Sql;
import dev.ironsieve.server.refusal.Refusal;
import jakarta.enterprise.context.ApplicationScoped;
import java.security.SecureRandom;
import java.sql.SQLException;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Base64;
import java.util.List;
import java.util.Optional;

/** Sign-in, sign-out, and management of accounts. */
@ApplicationScoped
public class Accounts {
  static final int BCRYPT_COST = 12;
  private static final int DEMOS_COST = 4; // the least there is
  private static final int TOKEN_BYTES = 32;
  private static final Duration SETUP_LASTS = Duration.ofHours(24);

  /**
   * Compared with when there is no such account, so that the answer takes as long. Its password,
   * "nobody", is too short for an account to have it.
   */
  static final String NOBODYS_HASH = "$2a$12$HCKsr4H5El9v/lc1do7r9uQct.7e45goVnr95iph8cMaomsqOR9O.";

  private final Database database;
  private final SignInConfig config;
  private final PasswordHashing hashing;
  private final SignInLimits limits;
  private final AuditTrail trail;
  private final SecureRandom random = new SecureRandom();

  Accounts(
      Database database,
      SignInConfig config,
      PasswordHashing hashing,
      SignInLimits limits,
      AuditTrail trail) {
    this.database = database;
    this.config = config;
    this.hashing = hashing;
    this.limits = limits;
    this.trail = trail;
  }

  /**
   * A new session.
   *
   * @param token the secret that the browser keeps
   */
  public record SignedIn(Account account, String token, Duration lasts) {}

  /**
   * Signs in. Comparing a password takes a good part of a second, so no connection to the database
   * is held meanwhile, and the lock of the name is checked again afterwards.
   *
   * @param address of the client
   * @throws Refusal.NotSignedIn if name and password do not match; 429 while the name is locked,
   *     and if there are too many tries from the address or in total
   */
  public SignedIn signIn(String name, String password, String address) {
    limits.countTry(address);
    if (!Account.isName(name) || password == null) {
      throw wrong();
    }
    Optional<AccountStore.Secret> secret =
        database.inTransaction("looking up an account", sql -> unlessLocked(sql, name));
    String hash = secret.map(AccountStore.Secret::passwordHash).orElse(NOBODYS_HASH);
    boolean right = hashing.matches(password, hash);
    if (secret.isEmpty()) {
      limits.countFailure(name, Instant.now().plus(config.lockedFor()));
      database.inTransaction(
          "noting a failed sign-in",
          sql -> {
            trail.addBy(sql, name, AuditAction.SIGN_IN_FAILED, name, "no such account");
            return null;
          });
      throw wrong();
    }
    return database
        .inTransaction(
            "signing in",
            sql -> {
              Optional<Account> account =
                  unlessLocked(sql, name)
                      .filter(found -> right && found.passwordHash().equals(hash))
                      .map(AccountStore.Secret::account)
                      .filter(found -> !found.disabled());
              if (account.isEmpty()) {
                Instant until = Instant.now().plus(config.lockedFor());
                AccountStore.countFailure(sql, name, config.failures(), until);
                trail.addBy(sql, name, AuditAction.SIGN_IN_FAILED, name, "");
                return Optional.<SignedIn>empty(); // not thrown here, where it would undo the count
              }
              AccountStore.forgetFailures(sql, name);
              trail.addBy(sql, name, AuditAction.SIGN_IN, name, "");
              String token = newToken();
              AccountStore.addSession(
                  sql, hash(token), account.get().id(), Instant.now().plus(config.lasts()));
              return Optional.of(new SignedIn(account.get(), token, config.lasts()));
            })
        .orElseThrow(Accounts::wrong);
  }

  private Optional<AccountStore.Secret> unlessLocked(Sql sql, String name) throws SQLException {
    Optional<AccountStore.Secret> known = AccountStore.byName(sql, name);
    Optional<Instant> locked =
        known.isPresent() ? AccountStore.lockedUntil(sql, name) : limits.lockedUntil(name);
    if (locked.isPresent()) {
      throw locked(locked.get());
    }
    return known;
  }

  private static Refusal wrong() {
    return new Refusal.NotSignedIn("Name and password do not go together.");
  }

  private static Refusal locked(Instant until) {
    long minutes = Math.max(1, Duration.between(Instant.now(), until).toMinutes() + 1);
    return new Refusal.Busy(
        true, "Too many wrong passwords for this name. Try again in " + minutes + " minutes.", 0);
  }

  /** The account of a session that still lasts. */
  public Optional<Account> bySession(String token) {
    return database.inTransaction(
        "looking up a session", sql -> AccountStore.bySession(sql, hash(token)));
  }

  public void signOut(String token) {
    database.inTransaction(
        "signing out",
        sql -> {
          Optional<Account> account = AccountStore.bySession(sql, hash(token));
          AccountStore.endSession(sql, hash(token));
          if (account.isPresent()) {
            String name = account.get().name();
            trail.addBy(sql, name, AuditAction.SIGN_OUT, name, "");
          }
          return null;
        });
  }

  /** A fresh secret for making the first admin, or nothing if there are accounts already. */
  public Optional<String> offerSetup() {
    return database.inTransaction(
        "offering the set-up",
        sql -> {
          if (AccountStore.any(sql)) {
            return Optional.empty();
          }
          String token = newToken();
          AccountStore.replaceSetupToken(sql, hash(token), Instant.now().plus(SETUP_LASTS));
          return Optional.of(token);
        });
  }

  /** Makes the first admin. The link is looked at before anything that takes long. */
  public Account setUp(String token, String name, String displayName, String password) {
    boolean may =
        token != null
            && database.inTransaction(
                "looking for the set-up link",
                sql -> AccountStore.hasSetupToken(sql, hash(token)) && !AccountStore.any(sql));
    if (!may) {
      throw noSetUp();
    }
    Account.checkNames(name, displayName);
    Account.checkPassword(password);
    String hash = hashing.hash(password, BCRYPT_COST);
    return database.inTransaction(
        "making the first admin",
        sql -> {
          if (!AccountStore.takeSetupToken(sql, hash(token)) || AccountStore.any(sql)) {
            throw noSetUp();
          }
          trail.addBy(sql, name, AuditAction.FIRST_ADMIN, name, displayName);
          return AccountStore.add(sql, name, displayName, Role.ADMIN, hash);
        });
  }

  private static Refusal noSetUp() {
    return new Refusal.NotAllowed(
        "This set-up link was used or has ended. Start the server again for one.");
  }

  public List<Account> all() {
    return database.inTransaction("listing accounts", AccountStore::all);
  }

  public Account add(String name, String displayName, Role role, String password) {
    return add(name, displayName, role, password, BCRYPT_COST);
  }

  /**
   * Adds an account of the demo. Everybody may know its password, so its hash need not be slow; it
   * is disabled whenever the server runs outside of the demo.
   */
  public Account addForDemo(String name, String displayName, Role role, String password) {
    Account added = add(name, displayName, role, password, DEMOS_COST);
    database.inTransaction(
        "marking an account of the demo",
        sql -> {
          AccountStore.markAsDemo(sql, added.id());
          return added;
        });
    return added;
  }

  /** Enables the accounts of the demo, or disables them. */
  public void allowDemo(boolean allowed) {
    database.inTransaction(
        "allowing accounts of the demo",
        sql -> {
          AccountStore.allowDemo(sql, allowed);
          return allowed;
        });
  }

  private Account add(String name, String displayName, Role role, String password, int cost) {
    Account.checkNames(name, displayName);
    Account.checkPassword(password);
    String hash = hashing.hash(password, cost);
    Account added =
        database.inTransaction(
            "adding an account",
            sql -> {
              Account made = AccountStore.add(sql, name, displayName, role, hash);
              if (made != null) {
                trail.add(sql, AuditAction.ACCOUNT_ADDED, name, "role " + role.word());
              }
              return made;
            });
    if (added == null) {
      throw new Refusal.WrongState("There is an account \"" + name + "\" already.");
    }
    return added;
  }

  /** Changes the fields that are not null. An account that loses a right loses its sessions too. */
  public Account change(String name, Role role, Boolean disabled, String password) {
    if (password != null) {
      Account.checkPassword(password);
    }
    String hash = password == null ? null : hashing.hash(password, BCRYPT_COST);
    return database.inTransaction(
        "changing an account",
        sql -> {
          Account account =
              (Account.isName(name)
                      ? AccountStore.byName(sql, name)
                      : Optional.<AccountStore.Secret>empty())
                  .map(AccountStore.Secret::account)
                  .orElseThrow(() -> new Refusal.NotFound("There is no such account."));
          boolean noAdminAnyMore =
              (role != null && role != Role.ADMIN) || Boolean.TRUE.equals(disabled);
          if (account.role() == Role.ADMIN
              && noAdminAnyMore
              && !AccountStore.otherAdmin(sql, account.id())) {
            throw new Refusal.WrongState("This is the last admin; make another one first.");
          }
          if (role != null) {
            AccountStore.setRole(sql, account.id(), role);
          }
          if (disabled != null) {
            AccountStore.setDisabled(sql, account.id(), disabled);
          }
          if (hash != null) {
            AccountStore.setPassword(sql, account.id(), hash);
          }
          AccountStore.endSessions(sql, account.id());
          List<String> changes = new ArrayList<>();
          if (role != null) {
            changes.add("role " + role.word());
          }
          if (disabled != null) {
            changes.add(disabled ? "disabled" : "enabled");
          }
          if (hash != null) {
            changes.add("another password");
          }
          trail.add(sql, AuditAction.ACCOUNT_CHANGED, name, String.join(", ", changes));
          return AccountStore.byName(sql, name).orElseThrow().account();
        });
  }

  private String newToken() {
    byte[] bytes = new byte[TOKEN_BYTES];
    random.nextBytes(bytes);
    return Base64.getUrlEncoder().withoutPadding().encodeToString(bytes);
  }

  /** Only hashes of secrets are stored; a secret of 256 random bits needs no slow one. */
  private static byte[] hash(String token) {
    return Digest.of(token);
  }
}
