package dev.ironsieve.server.draft;

import dev.ironsieve.core.edit.Edit;
import dev.ironsieve.core.edit.MissingTarget;
import dev.ironsieve.core.edit.RuleMerge;
import dev.ironsieve.core.edit.Touched;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.server.jdbc.Database;
import dev.ironsieve.server.refusal.Refusal;
import jakarta.enterprise.context.ApplicationScoped;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;

/** Compares an edit with the changes that other people made since its author saw the draft. */
@ApplicationScoped
class EditConflicts {
  private final Database database;

  EditConflicts(Database database) {
    this.database = database;
  }

  /**
   * The edit, merged with changes by others of other parts of its rules.
   *
   * @param client the page that asks, whose own changes are no conflict, or null
   * @throws Refusal.EditConflict if others changed the same parts, or anything else that it touches
   */
  Edit resolved(LiveDraft draft, long seen, Edit edit, String client) {
    Rulebase now = draft.state().rulebase();
    if (seen == draft.state().version()) {
      return edit;
    }
    String[] keys = LiveDraft.keys(edit, now);
    List<DraftStore.Change> theirs =
        database.inTransaction(
            "looking for conflicts",
            sql -> DraftStore.touching(sql, draft.id(), seen, keys, client, 0));
    if (theirs.isEmpty()) {
      return edit;
    }
    if (edit instanceof Edit.ReplaceRules replace) {
      List<Edit> inverses =
          theirs.stream().map(change -> LiveDraft.edit(change.inverse())).toList();
      Optional<List<Rule>> merged = RuleMerge.merged(replace.rules(), inverses, now);
      if (merged.isPresent()) {
        return new Edit.ReplaceRules(merged.get());
      }
    }
    throw conflict(draft, theirs.getLast(), keys);
  }

  /**
   * Checks that no other account has changed some rules, sections or objects since a version.
   *
   * @param keys of the rules, sections and objects
   * @throws Refusal.EditConflict if another account has changed one of them
   */
  void check(LiveDraft draft, long since, String[] keys, long account) {
    List<DraftStore.Change> theirs =
        database.inTransaction(
            "looking for conflicts",
            sql -> DraftStore.touching(sql, draft.id(), since, keys, null, account));
    if (!theirs.isEmpty()) {
      throw conflict(draft, theirs.getLast(), keys);
    }
  }

  /**
   * The rulebase after an edit.
   *
   * @throws Refusal.EditConflict if a rule, section or object of the edit was deleted
   */
  Rulebase applied(LiveDraft draft, Edit edit) {
    try {
      return edit.apply(draft.state().rulebase());
    } catch (MissingTarget e) {
      Optional<DraftStore.Change> change =
          database.inTransaction(
              "looking for a change",
              sql ->
                  DraftStore.lastTouching(
                      sql, draft.id(), LiveDraft.key(new Touched(e.kind(), e.name()))));
      if (change.isEmpty()) {
        throw e;
      }
      String detail = change.get().by() + " deleted the " + e.kind() + " of this change.";
      throw new Refusal.EditConflict(detail, conflict(e.kind(), e.name(), change.get()));
    }
  }

  private static Refusal conflict(LiveDraft draft, DraftStore.Change change, String[] keys) {
    List<String> theirs = List.of(change.touched());
    String shared = Stream.of(keys).filter(theirs::contains).findFirst().orElseThrow();
    String kind = shared.substring(0, shared.indexOf(' '));
    String key = shared.substring(shared.indexOf(' ') + 1);
    String name =
        draft.state().rulebase().rules().stream()
            .filter(rule -> rule.id().equals(key))
            .map(rule -> " \"" + rule.name() + "\"")
            .findFirst()
            .orElse(kind.equals("rule") ? "" : " \"" + key + "\"");
    String detail = change.by() + " changed the " + kind + name + " since you saw it.";
    return new Refusal.EditConflict(detail, conflict(kind, key, change));
  }

  private static Refusal.OtherChange conflict(String kind, String key, DraftStore.Change change) {
    return new Refusal.OtherChange(
        kind, key, change.by(), change.version(), change.at().toString());
  }
}
