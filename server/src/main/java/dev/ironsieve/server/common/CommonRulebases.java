package dev.ironsieve.server.common;

import dev.ironsieve.core.edit.Edit;
import dev.ironsieve.core.rulebase.CommonRules;
import dev.ironsieve.formats.Json;
import dev.ironsieve.formats.document.RulebaseDocument;
import dev.ironsieve.formats.document.ToModel;
import dev.ironsieve.server.draft.Drafts;
import dev.ironsieve.server.jdbc.Database;
import dev.ironsieve.server.refusal.Refusal;
import jakarta.enterprise.context.ApplicationScoped;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;

/** Puts drafts below common rulebases, and finds those below one. */
@ApplicationScoped
public class CommonRulebases {
  private final Database database;
  private final Drafts drafts;

  CommonRulebases(Database database, Drafts drafts) {
    this.database = database;
    this.drafts = drafts;
  }

  /**
   * Every rulebase below a common one, at any distance; each common rulebase stands before those
   * below it.
   */
  public List<Below> below(long common) {
    List<Below> out = new ArrayList<>();
    Set<Long> known = new HashSet<>(Set.of(common));
    add(common, known, out);
    return out;
  }

  private void add(long common, Set<Long> known, List<Below> out) {
    List<Below> direct =
        database.inTransaction(
            "looking for rulebases below a common one",
            sql -> CommonStore.directlyBelow(sql, common));
    for (Below one : direct) {
      if (known.add(one.id())) {
        out.add(one);
        add(one.id(), known, out);
      }
    }
  }

  /** Those below a common rulebase, with their gateways. */
  List<BelowDocument> documents(long common) {
    drafts.state(common); // refuses an unknown one
    return below(common).stream()
        .map(
            one ->
                new BelowDocument(
                    one.id(),
                    one.name(),
                    one.kind(),
                    database.inTransaction(
                        "listing gateways", sql -> CommonStore.gateways(sql, one.id()))))
        .toList();
  }

  /** What the newest revision of a common rulebase gives to those below it. */
  public CommonRules newest(long common) {
    CommonStore.Newest newest =
        database
            .inTransaction("reading a common rulebase", sql -> CommonStore.newest(sql, common))
            .orElseThrow(() -> new Refusal.NotFound("There is no such common rulebase."));
    return CommonRules.of(
        ToModel.rulebase(
            Json.read(newest.content().getBytes(StandardCharsets.UTF_8), RulebaseDocument.class)),
        newest.number());
  }

  /**
   * Puts a draft below a common rulebase, or takes it from there; one change, which can be undone.
   *
   * @throws Refusal.WrongState if that changes nothing, or would put a rulebase below itself
   */
  void choose(long rulebase, CommonRequest request, Drafts.Requester requester) {
    if (request.rulebase() != null
        && (request.rulebase() == rulebase
            || below(rulebase).stream().anyMatch(one -> one.id() == request.rulebase()))) {
      throw new Refusal.WrongState("A rulebase cannot be below itself.");
    }
    Edit edit = new Edit.PutCommon(request.rulebase() == null ? null : newest(request.rulebase()));
    if (edit.inverse(drafts.rulebase(rulebase)).isEmpty()) {
      throw new Refusal.WrongState("The draft has these common rules already.");
    }
    drafts.edit(rulebase, request.version(), edit, requester);
  }
}
