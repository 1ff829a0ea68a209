package dev.ironsieve.server.rulebase;

import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.formats.Digest;
import dev.ironsieve.formats.Json;
import dev.ironsieve.formats.document.FromModel;
import dev.ironsieve.server.jdbc.Database;
import dev.ironsieve.server.refusal.Refusal;
import jakarta.enterprise.context.ApplicationScoped;
import java.util.List;

/** Creates and lists rulebases. */
@ApplicationScoped
public class Rulebases {
  private final Database database;

  Rulebases(Database database) {
    this.database = database;
  }

  List<StoredRulebase> all() {
    return database.inTransaction("listing rulebases", RulebaseStore::all);
  }

  public boolean none() {
    return all().isEmpty();
  }

  /**
   * Stores a new rulebase as its first revision, with a draft on it.
   *
   * @param account id of who makes it, or null for the demo
   * @return its id
   * @throws Refusal.WrongState if the name is taken
   */
  public long add(Rulebase rulebase, Long account) {
    String content = Json.write(FromModel.rulebase(rulebase));
    return database
        .inTransaction(
            "storing a rulebase",
            sql ->
                RulebaseStore.add(
                    sql,
                    new RulebaseStore.New(
                        rulebase.name(),
                        rulebase.kind().word(),
                        content,
                        Digest.of(content),
                        rulebase.commonName(),
                        account)))
        .orElseThrow(
            () ->
                new Refusal.WrongState(
                    "There is a rulebase \"" + rulebase.name() + "\" already. Name it anew."));
  }
}
