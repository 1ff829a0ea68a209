package dev.ironsieve.server.log;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import dev.ironsieve.server.draft.Drafts;
import dev.ironsieve.server.jdbc.Database;
import dev.ironsieve.server.refusal.Refusal;
import dev.ironsieve.server.revision.Revisions;
import jakarta.enterprise.context.ApplicationScoped;
import java.time.Instant;
import java.util.List;

/** Answers questions about log records and hits. */
@ApplicationScoped
class Logs {
  private static final int MOST_RECORDS = 1_000;
  private static final int CACHED_REVISIONS = 50;

  private final Database database;
  private final Drafts drafts;
  private final Revisions revisions;
  private final LogQueue queue;
  private final LogSenders senders;
  private final Cache<RevisionKey, RevisionRules> rules =
      Caffeine.newBuilder().maximumSize(CACHED_REVISIONS).build();

  private record RevisionKey(long rulebase, int revision) {}

  Logs(Database database, Drafts drafts, Revisions revisions, LogQueue queue, LogSenders senders) {
    this.database = database;
    this.drafts = drafts;
    this.revisions = revisions;
    this.queue = queue;
    this.senders = senders;
  }

  /** The hits of every rule that has any. */
  List<RuleHits> hits(long rulebase) {
    drafts.state(rulebase); // refuses an unknown one
    Instant now = Instant.now();
    return database.inTransaction("counting hits", sql -> LogQueries.hits(sql, rulebase, now));
  }

  /**
   * The newest records that fit.
   *
   * @param most how many, up to 1,000
   */
  LogPage records(long rulebase, LogFilter filter, int most) {
    if (most < 1 || most > MOST_RECORDS) {
      throw new Refusal.Invalid("limit", "a number from 1 to " + MOST_RECORDS, most + "");
    }
    drafts.state(rulebase);
    List<LogRow> found =
        database.inTransaction(
            "reading log records",
            sql ->
                LogQueries.records(
                    sql,
                    rulebase,
                    filter,
                    most + 1,
                    revision -> rules.get(new RevisionKey(rulebase, revision), this::read)));
    boolean more = found.size() > most;
    return new LogPage(more ? found.subList(0, most) : found, more);
  }

  private RevisionRules read(RevisionKey key) {
    try {
      return RevisionRules.of(revisions.document(key.rulebase(), key.revision()));
    } catch (Refusal.NotFound e) {
      return RevisionRules.NONE; // a gateway reported a revision that is not there
    }
  }

  LogState state(long rulebase) {
    drafts.state(rulebase);
    return new LogState(
        queue.size(),
        database.inTransaction("listing log senders", sql -> LogQueries.runs(sql, rulebase)),
        senders.all());
  }
}
