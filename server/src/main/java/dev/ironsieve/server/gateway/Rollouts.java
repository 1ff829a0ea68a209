package dev.ironsieve.server.gateway;

import dev.ironsieve.server.audit.AuditAction;
import dev.ironsieve.server.audit.AuditTrail;
import dev.ironsieve.server.draft.Publications;
import dev.ironsieve.server.jdbc.Database;
import dev.ironsieve.server.jdbc.Sql;
import dev.ironsieve.server.refusal.Refusal;
import io.quarkus.scheduler.Scheduled;
import jakarta.enterprise.context.ApplicationScoped;
import java.sql.SQLException;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;

/** Lets some gateways follow a revision first, and the others when it has proved itself there. */
@ApplicationScoped
public class Rollouts {
  private static final int LONGEST = 7 * 24 * 60; // minutes

  private final Database database;
  private final Gateways gateways;
  private final Publications publications;
  private final AuditTrail trail;

  Rollouts(Database database, Gateways gateways, Publications publications, AuditTrail trail) {
    this.database = database;
    this.gateways = gateways;
    this.publications = publications;
    this.trail = trail;
  }

  /**
   * Checks a wish.
   *
   * @param first null for all gateways at once
   * @throws Refusal.Invalid if it names others than gateways of the rulebase, or no time
   */
  public void check(long rulebase, FirstGateways first) {
    if (first == null) {
      return;
    }
    List<Long> known = active(rulebase).stream().map(GatewaySummary::id).toList();
    if (first.gateways() == null
        || first.gateways().isEmpty()
        || !known.containsAll(first.gateways())) {
      throw new Refusal.Invalid(
          "$.first.gateways", "ids of gateways of the rulebase", first.gateways() + "");
    }
    Integer minutes = first.restAfterMinutes();
    if (minutes == null || minutes < 1 || minutes > LONGEST) {
      throw new Refusal.Invalid(
          "$.first.restAfterMinutes", "1 to " + LONGEST, minutes == null ? null : minutes + "");
    }
  }

  private List<GatewaySummary> active(long rulebase) {
    return gateways.all(rulebase).stream()
        .filter(gateway -> !gateway.state().equals("revoked"))
        .toList();
  }

  /** The revision that the gateways follow before a publish, which the others keep. */
  public int followed(Sql sql, long rulebase) throws SQLException {
    return RolloutStore.followed(sql, rulebase);
  }

  /**
   * Starts one with a publish, or ends the one before.
   *
   * @param previous the revision that the others keep
   * @param first null for all gateways at once
   */
  public void published(Sql sql, long rulebase, int revision, int previous, FirstGateways first)
      throws SQLException {
    if (first == null) {
      RolloutStore.delete(sql, rulebase);
      return;
    }
    RolloutStore.put(
        sql,
        rulebase,
        revision,
        previous,
        first.gateways(),
        Instant.now().plus(Duration.ofMinutes(first.restAfterMinutes())));
  }

  /** The revision that some gateways of a rulebase follow first. */
  Rollout of(long rulebase) {
    List<GatewaySummary> all = active(rulebase);
    return database
        .inTransaction("reading a rollout", sql -> RolloutStore.of(sql, rulebase))
        .map(
            one ->
                new Rollout(
                    one.revision(),
                    all.stream()
                        .filter(gateway -> one.first().contains(gateway.id()))
                        .map(GatewaySummary::name)
                        .toList(),
                    one.restAt().toString(),
                    one.stopped()))
        .orElse(Rollout.NONE);
  }

  /** Lets the others follow now. */
  void finish(long rulebase) {
    boolean there =
        database.inTransaction(
            "finishing a rollout",
            sql -> {
              Optional<RolloutStore.Stored> one = RolloutStore.of(sql, rulebase);
              if (one.isPresent() && RolloutStore.delete(sql, rulebase)) {
                String what = "revision %d for all gateways".formatted(one.get().revision());
                trail.add(
                    sql, AuditAction.ROLLOUT_FINISHED, GatewayStore.rulebase(sql, rulebase), what);
                return true;
              }
              return false;
            });
    if (!there) {
      throw new Refusal.NotFound("No revision waits for the other gateways.");
    }
    publications.published(rulebase);
  }

  /**
   * Keeps the other gateways on the previous revision, until the rollout is finished or another
   * revision is published.
   */
  void stop(long rulebase) {
    Optional<RolloutStore.Stored> one =
        database.inTransaction("reading a rollout", sql -> RolloutStore.of(sql, rulebase));
    if (one.isEmpty() || !stop(one.get(), "It was stopped by hand.")) {
      throw new Refusal.NotFound("No revision waits for the other gateways.");
    }
  }

  private boolean stop(RolloutStore.Stored one, String reason) {
    return database.inTransaction(
        "stopping a rollout",
        sql -> {
          boolean stopped = RolloutStore.stop(sql, one.rulebase(), one.revision(), reason);
          if (stopped) {
            trail.add(
                sql,
                AuditAction.ROLLOUT_STOPPED,
                GatewayStore.rulebase(sql, one.rulebase()),
                "revision %d: %s".formatted(one.revision(), reason));
          }
          return stopped;
        });
  }

  /** Stops those that failed, and finishes those whose time has come. */
  @Scheduled(every = "2s", concurrentExecution = Scheduled.ConcurrentExecution.SKIP)
  void look() {
    for (RolloutStore.Stored one :
        database.inTransaction("looking for rollouts", RolloutStore::waiting)) {
      List<GatewaySummary> first =
          active(one.rulebase()).stream()
              .filter(gateway -> one.first().contains(gateway.id()))
              .toList();
      boolean due = !one.restAt().isAfter(Instant.now());
      Optional<GatewaySummary> failed =
          first.stream()
              .filter(
                  gateway ->
                      gateway.state().equals("refused")
                          || due && !gateway.state().equals("in force"))
              .findFirst();
      if (failed.isPresent()) {
        stop(one, "%s is %s.".formatted(failed.get().name(), failed.get().state()));
      } else if (due) {
        finish(one.rulebase());
      }
    }
  }
}
