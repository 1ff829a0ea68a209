package dev.ironsieve.server.revision;

import dev.ironsieve.formats.Json;
import dev.ironsieve.formats.document.RulebaseDocument;
import dev.ironsieve.server.jdbc.Database;
import dev.ironsieve.server.refusal.Refusal;
import jakarta.enterprise.context.ApplicationScoped;
import java.nio.charset.StandardCharsets;

/** Reads the documents of revisions. */
@ApplicationScoped
public class RevisionDocuments {
  private final Database database;

  RevisionDocuments(Database database) {
    this.database = database;
  }

  /**
   * The document of a revision.
   *
   * @throws Refusal.NotFound if there is none
   */
  public RulebaseDocument document(long rulebase, int number) {
    String content =
        database
            .inTransaction(
                "reading a revision", sql -> RevisionStore.content(sql, rulebase, number))
            .orElseThrow(() -> new Refusal.NotFound("There is no revision " + number + "."));
    return Json.read(content.getBytes(StandardCharsets.UTF_8), RulebaseDocument.class);
  }
}
