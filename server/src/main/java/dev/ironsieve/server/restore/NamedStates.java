package dev.ironsieve.server.restore;

import dev.ironsieve.core.model.Names;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.formats.Json;
import dev.ironsieve.formats.document.FromModel;
import dev.ironsieve.formats.document.RulebaseDocument;
import dev.ironsieve.formats.document.ToModel;
import dev.ironsieve.server.account.Account;
import dev.ironsieve.server.draft.DraftState;
import dev.ironsieve.server.draft.Drafts;
import dev.ironsieve.server.jdbc.Database;
import dev.ironsieve.server.refusal.Refusal;
import jakarta.enterprise.context.ApplicationScoped;
import java.nio.charset.StandardCharsets;
import java.util.List;

/** Gives states of drafts names, and keeps them. */
@ApplicationScoped
class NamedStates {
  private static final int MOST = 100;

  private final Database database;
  private final Drafts drafts;

  NamedStates(Database database, Drafts drafts) {
    this.database = database;
    this.drafts = drafts;
  }

  /** The newest first. */
  List<NamedState> all(long rulebase) {
    drafts.state(rulebase); // refuses an unknown one
    return database.inTransaction(
        "listing named states", sql -> NamedStateStore.all(sql, rulebase));
  }

  /**
   * Names the present state of a draft.
   *
   * @param seen the draft's version that the person saw
   * @throws Refusal.WrongState if it was changed since, the name is taken, or there are too many
   */
  void add(long rulebase, String name, long seen, Account account) {
    String title = Names.checkTitle("state", name);
    DraftState draft = drafts.state(rulebase);
    if (draft.version() != seen) {
      throw new Refusal.WrongState(
          "The draft was changed meanwhile. Look at it, and name it then.");
    }
    String content = Json.line(FromModel.rulebase(draft.rulebase()));
    boolean added =
        database.inTransaction(
            "naming a state",
            sql -> {
              if (NamedStateStore.all(sql, rulebase).size() >= MOST) {
                throw new Refusal.WrongState(
                    "A draft has at most %d named states. Delete one first.".formatted(MOST));
              }
              return NamedStateStore.add(
                  sql, rulebase, title, seen, draft.revision(), content, account.id());
            });
    if (!added) {
      throw new Refusal.WrongState("A state is called \"%s\" already.".formatted(title));
    }
  }

  void delete(long rulebase, String name) {
    if (!database.inTransaction(
        "deleting a named state", sql -> NamedStateStore.delete(sql, rulebase, name))) {
      throw notFound(name);
    }
  }

  /**
   * The rulebase in a state.
   *
   * @throws Refusal.NotFound if there is none of this name
   */
  Rulebase rulebase(long rulebase, String name) {
    Names.checkTitle("state", name);
    String content =
        database
            .inTransaction(
                "reading a named state", sql -> NamedStateStore.content(sql, rulebase, name))
            .orElseThrow(() -> notFound(name));
    return ToModel.rulebase(
        Json.read(content.getBytes(StandardCharsets.UTF_8), RulebaseDocument.class));
  }

  private static Refusal notFound(String name) {
    return new Refusal.NotFound("No state of this draft is called \"%s\".".formatted(name));
  }
}
