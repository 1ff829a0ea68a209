package dev.ironsieve.server.rulebase;

import dev.ironsieve.core.model.Rulebase;
import dev.ironsieve.formats.Json;
import dev.ironsieve.formats.document.FromModel;
import dev.ironsieve.server.http.Problem;
import dev.ironsieve.server.jdbc.Database;
import jakarta.enterprise.context.ApplicationScoped;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.List;

/** Making and listing rulebases. */
@ApplicationScoped
public class Rulebases {
  private final Database database;

  Rulebases(Database database) {
    this.database = database;
  }

  List<RulebaseStore.Row> all() {
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
   * @throws Problem 409 if the name is taken
   */
  public long add(Rulebase rulebase, Long account) {
    String content = Json.write(FromModel.rulebase(rulebase));
    return database
        .inTransaction(
            "storing a rulebase",
            sql -> RulebaseStore.add(sql, rulebase.name(), content, digest(content), account))
        .orElseThrow(
            () ->
                Problem.of(
                    409, "There is a rulebase \"" + rulebase.name() + "\" already. Name it anew."));
  }

  private static byte[] digest(String content) {
    try {
      return MessageDigest.getInstance("SHA-256").digest(content.getBytes(StandardCharsets.UTF_8));
    } catch (NoSuchAlgorithmException e) {
      throw new IllegalStateException("every Java platform has SHA-256", e);
    }
  }
}
