package dev.ironsieve.server.log;

import dev.ironsieve.core.model.Connection;
import dev.ironsieve.server.draft.RecordedConnections;
import dev.ironsieve.server.jdbc.Database;
import jakarta.enterprise.context.ApplicationScoped;
import java.time.Instant;
import java.util.List;

/** The recorded connections, from the log. */
@ApplicationScoped
class LoggedConnections implements RecordedConnections {
  private final Database database;
  private final RevisionRuleNames rules;

  LoggedConnections(Database database, RevisionRuleNames rules) {
    this.database = database;
    this.rules = rules;
  }

  @Override
  public List<Connection> since(long rulebase, Instant time, int most) {
    return database.inTransaction(
        "reading recorded connections",
        sql ->
            RecordStore.connections(
                sql, rulebase, time, most, revision -> rules.of(rulebase, revision).zone()));
  }
}
