package dev.ironsieve.server.revision;

import dev.ironsieve.server.account.Account;
import dev.ironsieve.server.audit.AuditAction;
import dev.ironsieve.server.audit.AuditTrail;
import dev.ironsieve.server.jdbc.Database;
import dev.ironsieve.server.refusal.Refusal;
import io.quarkus.scheduler.Scheduled;
import jakarta.enterprise.context.ApplicationScoped;
import java.time.DateTimeException;
import java.time.Duration;
import java.time.Instant;
import java.time.OffsetDateTime;
import java.util.List;
import org.jboss.logging.Logger;

/** Publishes drafts at the time that a publisher set, unless they were edited since. */
@ApplicationScoped
class ScheduledPublishes {
  private static final Logger LOG = Logger.getLogger(ScheduledPublishes.class);
  private static final Duration FURTHEST = Duration.ofDays(366);

  private final Database database;
  private final Revisions revisions;
  private final AuditTrail trail;

  ScheduledPublishes(Database database, Revisions revisions, AuditTrail trail) {
    this.database = database;
    this.revisions = revisions;
    this.trail = trail;
  }

  /**
   * Sets the time of a publish, in place of an earlier one.
   *
   * @throws Refusal.WrongState as {@link Revisions#publish}
   */
  void schedule(long rulebase, ScheduleRequest request, Account account) {
    Instant due = due(request.due());
    RevisionStore.Next next =
        revisions.nextAlone(
            rulebase,
            new PublishRequest(request.version(), request.note(), request.overrideReason(), null),
            account.id());
    database.inTransaction(
        "scheduling a publish",
        sql -> {
          ScheduledPublishStore.put(
              sql, rulebase, next.version(), account.id(), next.note(), next.overrideReason(), due);
          String name = RevisionStore.rulebaseName(sql, rulebase);
          trail.add(sql, AuditAction.PUBLISH_SCHEDULED, name, "at " + due);
          return null;
        });
  }

  private static Instant due(String said) {
    Instant now = Instant.now();
    try {
      Instant due = OffsetDateTime.parse(said).toInstant();
      if (due.isAfter(now) && due.isBefore(now.plus(FURTHEST))) {
        return due;
      }
    } catch (DateTimeException e) {
      // said below
    }
    throw new Refusal.Invalid(
        "$.due", "a time within the next year, such as 2026-12-24T22:00:00Z", said);
  }

  /** Cancels a publish that waits, or dismisses one that failed. */
  void cancel(long rulebase) {
    boolean there =
        database.inTransaction(
            "cancelling a scheduled publish",
            sql -> {
              boolean deleted = ScheduledPublishStore.delete(sql, rulebase);
              if (deleted) {
                String name = RevisionStore.rulebaseName(sql, rulebase);
                trail.add(sql, AuditAction.SCHEDULED_PUBLISH_CANCELLED, name, "");
              }
              return deleted;
            });
    if (!there) {
      throw new Refusal.NotFound("No publish of this draft is scheduled.");
    }
  }

  /** Publishes the drafts whose time has come. */
  @Scheduled(every = "5s", concurrentExecution = Scheduled.ConcurrentExecution.SKIP)
  void publishDue() {
    List<ScheduledPublishStore.Stored> due =
        database.inTransaction(
            "looking for scheduled publishes",
            sql -> ScheduledPublishStore.due(sql, Instant.now()));
    due.forEach(this::publish);
  }

  private void publish(ScheduledPublishStore.Stored one) {
    try {
      if (!one.mayPublish()) {
        throw new Refusal.NotAllowed(one.byName() + " may no longer publish.");
      }
      revisions.publish(
          one.rulebase(),
          new PublishRequest(one.version(), one.note(), one.overrideReason(), null),
          one.account());
    } catch (Refusal.Busy e) {
      LOG.infof("A scheduled publish waits: %s", e.getMessage()); // for the next look
    } catch (Refusal e) {
      database.inTransaction(
          "keeping why a scheduled publish failed",
          sql -> {
            if (ScheduledPublishStore.fail(sql, one, e.getMessage())) {
              String name = RevisionStore.rulebaseName(sql, one.rulebase());
              trail.add(sql, AuditAction.SCHEDULED_PUBLISH_FAILED, name, e.getMessage());
            }
            return null;
          });
    } catch (RuntimeException e) {
      LOG.error("a scheduled publish failed, and is tried again", e);
    }
  }
}
