package dev.ironsieve.server.revision;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.formats.Json;
import dev.ironsieve.formats.document.RulebaseDocument;
import dev.ironsieve.formats.document.ToModel;
import dev.ironsieve.server.jdbc.Database;
import dev.ironsieve.server.refusal.Refusal;
import jakarta.enterprise.context.ApplicationScoped;
import java.nio.charset.StandardCharsets;

/** Reads the documents of revisions. */
@ApplicationScoped
public class RevisionDocuments {
  /** Most revisions that are kept in memory; none ever changes. */
  private static final int MOST_KEPT = 10;

  private record Revision(long rulebase, int number) {}

  private final Cache<Revision, Rulebase> kept =
      Caffeine.newBuilder().maximumSize(MOST_KEPT).softValues().build();
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

  /**
   * The rulebase of a revision.
   *
   * @throws Refusal.NotFound if there is none
   */
  public Rulebase rulebase(long rulebase, int number) {
    return kept.get(
        new Revision(rulebase, number), key -> ToModel.rulebase(document(rulebase, number)));
  }
}
