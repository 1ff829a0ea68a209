package dev.ironsieve.server.rulebase;

import dev.ironsieve.core.analysis.LiveAnalysis;
import dev.ironsieve.core.model.Names;
import dev.ironsieve.core.model.RulebaseKind;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.formats.Json;
import dev.ironsieve.formats.document.RulebaseDocument;
import dev.ironsieve.formats.document.ToModel;
import dev.ironsieve.formats.rfc8519.AclReader;
import dev.ironsieve.server.draft.DraftSize;
import dev.ironsieve.server.draft.OfferedEditions;
import dev.ironsieve.server.question.QuestionPool;
import dev.ironsieve.server.refusal.Refusal;
import jakarta.enterprise.context.ApplicationScoped;
import java.time.LocalDate;
import java.util.List;

/** New rulebases: empty, or read from a document. */
@ApplicationScoped
class RulebaseImport {
  private final Rulebases rulebases;
  private final QuestionPool pool;
  private final DraftSize size;
  private final OfferedEditions offered;

  RulebaseImport(Rulebases rulebases, QuestionPool pool, DraftSize size, OfferedEditions offered) {
    this.offered = offered;
    this.rulebases = rulebases;
    this.pool = pool;
    this.size = size;
  }

  /**
   * A rulebase without rules, with the newest editions of catalogue, directory and feeds.
   *
   * @param kind its word, or null for traffic
   */
  Imported empty(String name, String kind, long account) {
    RulebaseKind known = kind == null ? RulebaseKind.TRAFFIC : RulebaseKind.of(kind);
    String checked = Names.checkTitle("rulebase", name);
    Rulebase fresh = offered.withNewest(Rulebase.empty(checked, known));
    return store(fresh, List.of(), account);
  }

  /**
   * Reads a document of Iron Sieve or of RFC 8519.
   *
   * @param name of the new rulebase; for the first kind null or blank leaves that of the document
   */
  Imported read(byte[] document, String name, long account) {
    boolean named = name != null && !name.isBlank();
    if (!AclReader.looksLikeOne(document)) {
      Rulebase read = ToModel.rulebase(Json.read(document, RulebaseDocument.class));
      return store(named ? read.named(name) : read, List.of(), account);
    }
    if (!named) {
      throw new Refusal.Invalid("name", "a name for the new rulebase", "nothing");
    }
    AclReader.Imported imported = AclReader.read(document, name);
    return store(imported.rulebase(), imported.notes(), account);
  }

  /** Analyses a rulebase before it is stored, so that every stored one can be opened. */
  private Imported store(Rulebase rulebase, List<String> notes, long account) {
    size.check(rulebase);
    LocalDate today = LocalDate.now(rulebase.gatewaySettings().timeZone());
    pool.ask(() -> new LiveAnalysis(rulebase, today));
    long id = rulebases.add(rulebase, account);
    return new Imported(id, rulebase.rules().size(), notes);
  }
}
