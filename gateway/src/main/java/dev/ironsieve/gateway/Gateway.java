package dev.ironsieve.gateway;

import dev.ironsieve.core.matcher.Matcher;
import dev.ironsieve.core.model.InvalidModel;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.formats.Digest;
import dev.ironsieve.formats.InvalidDocument;
import dev.ironsieve.formats.Json;
import dev.ironsieve.formats.document.RulebaseDocument;
import dev.ironsieve.formats.document.ToModel;
import dev.ironsieve.gateway.Decisions.InForce;
import dev.ironsieve.gateway.Revisions.Revision;
import java.io.IOException;
import java.time.Duration;
import java.util.HexFormat;
import java.util.Optional;
import java.util.function.Consumer;

/**
 * A gateway: follows the newest revision of its rulebase. A revision is fetched by its digest,
 * verified, stored beside the last good one, and then put in force. While the server is away, and
 * after a restart, the last good one decides.
 */
final class Gateway {
  private static final Duration FIRST_PAUSE = Duration.ofMillis(250);
  private static final Duration LONGEST_PAUSE = Duration.ofSeconds(10);
  private static final int MOST_REASON = 300;

  private final ServerLink server;
  private final Revisions revisions;
  private final Consumer<String> log;
  private final Consumer<InForce> switched;
  private volatile Matcher matcher; // of the revision in force; null before the first
  private Revision inForce; // null before the first
  private Revision refused; // which is not tried again
  private Revision unreported; // in force, and the server does not know yet
  private Duration pause = FIRST_PAUSE;

  /**
   * @param log takes sentences for the operator
   * @param switched receives each revision as soon as it is in force
   */
  Gateway(
      ServerLink server, Revisions revisions, Consumer<String> log, Consumer<InForce> switched) {
    this.server = server;
    this.revisions = revisions;
    this.log = log;
    this.switched = switched;
  }

  /**
   * Puts the last good revision in force, and enrols if that was not done before.
   *
   * @param token null if it has enrolled
   * @throws IOException if it cannot enrol, or the folder cannot be read
   */
  void start(String token) throws IOException, InterruptedException {
    Optional<String> secret = revisions.secret();
    if (secret.isEmpty()) {
      if (token == null) {
        throw new IOException("this gateway has not enrolled; start it with --token");
      }
      ServerLink.Enrolled enrolled = server.enrol(token);
      revisions.keepSecret(enrolled.secret());
      secret = Optional.of(enrolled.secret());
      log.accept("Enrolled as " + enrolled.name() + ".");
    }
    server.use(secret.get());
    Optional<Revision> last = revisions.inForce();
    if (last.isPresent()) {
      InForce decides = made(revisions.document(last.get()), last.get());
      matcher = decides.matcher();
      inForce = last.get();
      switched.accept(decides);
      unreported = inForce;
      log.accept("Revision " + inForce.number() + " is in force, from the last run.");
    }
  }

  /** Decides connections by the revision in force; empty before the first. */
  Optional<Matcher> matcher() {
    return Optional.ofNullable(matcher);
  }

  /** Waits for another revision, and puts it in force; pauses if the server is away. */
  void follow() throws InterruptedException {
    try {
      if (unreported != null) {
        report(unreported, "in force", null);
        unreported = null;
      }
      Revision known = refused != null ? refused : inForce;
      ServerLink.Desired desired = server.desired(known == null ? null : known.digest());
      Revision next = new Revision(desired.revision(), desired.digest());
      if (!next.equals(inForce) && !next.equals(refused)) {
        take(next);
      }
      pause = FIRST_PAUSE;
    } catch (IOException e) {
      log.accept("%s; trying again in %d ms.".formatted(sentence(e), pause.toMillis()));
      Thread.sleep(pause);
      pause =
          pause.multipliedBy(2).compareTo(LONGEST_PAUSE) < 0
              ? pause.multipliedBy(2)
              : LONGEST_PAUSE;
    }
  }

  private static String sentence(IOException e) {
    return e instanceof ServerLink.Refused refused
        ? refused.isUntrusted() ? "The server does not trust this gateway" : e.getMessage()
        : "The server is away (" + e + ")";
  }

  private void take(Revision next) throws IOException, InterruptedException {
    report(next, "fetching", null);
    InForce made;
    try {
      byte[] document = server.document(next.digest());
      made = made(document, next);
      revisions.store(next, document);
    } catch (Unfit e) {
      refused = next;
      report(next, "refused", e.getMessage());
      log.accept("Revision " + next.number() + " is refused: " + e.getMessage());
      return;
    }
    report(next, "verified", null);
    revisions.switchTo(next);
    matcher = made.matcher();
    inForce = next;
    switched.accept(made);
    refused = null;
    unreported = next;
    log.accept("Revision " + next.number() + " is in force.");
    report(next, "in force", null);
    unreported = null;
  }

  private void report(Revision revision, String state, String reason)
      throws IOException, InterruptedException {
    server.report(
        new ServerLink.Report(
            revision.number(),
            revision.digest(),
            state,
            reason == null || reason.length() <= MOST_REASON
                ? reason
                : reason.substring(0, MOST_REASON - 1) + "…"));
  }

  /** A document that cannot be put in force. */
  private static final class Unfit extends IOException {
    Unfit(String message) {
      super(message);
    }
  }

  /** Verifies a document and makes its rules ready. */
  private static InForce made(byte[] document, Revision revision) throws Unfit {
    String found = HexFormat.of().formatHex(Digest.of(document));
    if (!found.equals(revision.digest())) {
      throw new Unfit(
          "The digest does not match: expected %s, found %s.".formatted(revision.digest(), found));
    }
    try {
      Rulebase rulebase = ToModel.rulebase(Json.read(document, RulebaseDocument.class));
      return InForce.of(revision.number(), rulebase);
    } catch (InvalidDocument | InvalidModel e) {
      throw new Unfit("The document is not understood: " + e.getMessage());
    }
  }
}
