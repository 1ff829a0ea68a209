package dev.ironsieve.server.log;

import dev.ironsieve.server.draft.Drafts;
import dev.ironsieve.server.jdbc.Database;
import dev.ironsieve.server.refusal.Refusal;
import jakarta.enterprise.context.ApplicationScoped;
import java.time.Instant;
import java.util.List;

/** Answers questions about log records and hits. */
@ApplicationScoped
public class Logs {
  private static final int MOST_RECORDS = 1_000;

  private final Database database;
  private final Drafts drafts;
  private final RevisionRuleNames rules;
  private final LogQueue queue;
  private final LogSenders senders;

  Logs(
      Database database,
      Drafts drafts,
      RevisionRuleNames rules,
      LogQueue queue,
      LogSenders senders) {
    this.database = database;
    this.drafts = drafts;
    this.rules = rules;
    this.queue = queue;
    this.senders = senders;
  }

  /** The hits of every rule that has any. */
  public List<RuleHits> hits(long rulebase) {
    drafts.state(rulebase); // refuses an unknown one
    Instant now = Instant.now();
    return database.inTransaction("counting hits", sql -> RecordStore.hits(sql, rulebase, now));
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
                RecordStore.records(
                    sql, rulebase, filter, most + 1, revision -> rules.of(rulebase, revision)));
    boolean more = found.size() > most;
    return new LogPage(more ? found.subList(0, most) : found, more);
  }

  LogState state(long rulebase) {
    drafts.state(rulebase);
    return new LogState(
        queue.size(),
        database.inTransaction("listing log senders", sql -> RecordStore.runs(sql, rulebase)),
        senders.all());
  }
}
