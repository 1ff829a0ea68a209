package dev.ironsieve.server.draft;

import dev.ironsieve.core.edit.Edit;
import dev.ironsieve.core.edit.MissingTarget;
import dev.ironsieve.core.model.InvalidModel;
import dev.ironsieve.core.rulebase.Rulebase;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** The changes of a draft, made again on another revision. */
final class RebasedChanges {
  private final List<DraftStore.Change> out = new ArrayList<>();
  private long version;
  private Rulebase state;

  private RebasedChanges(long version, Rulebase state) {
    this.version = version;
    this.state = state;
  }

  /**
   * The changes that lead from a revision to a draft.
   *
   * @param changes those so far, the oldest first
   * @param version of the draft before them
   * @param inForce the revision
   * @param wanted the draft
   * @param account id of who makes the one change that leads there, if those so far no longer do
   */
  static List<DraftStore.Change> of(
      List<DraftStore.Change> changes,
      long version,
      Rulebase inForce,
      Rulebase wanted,
      long account) {
    RebasedChanges each = new RebasedChanges(version, inForce);
    if (each.addAll(changes) && each.state.equals(wanted)) {
      return each.out;
    }
    RebasedChanges whole = new RebasedChanges(version, inForce);
    Instant now = Instant.now().truncatedTo(ChronoUnit.MILLIS);
    DraftStore.Change by =
        new DraftStore.Change(0, "edit", 0, null, null, null, account, "", "", now, null, null);
    List<Edit> edits = new ArrayList<>();
    if (!inForce.common().equals(wanted.common())) {
      edits.add(new Edit.PutCommon(wanted.common().orElse(null)));
    }
    edits.add(new Edit.Restore("the draft before the common rules changed", wanted));
    edits.forEach(edit -> whole.add(edit, by));
    return whole.out;
  }

  /** Whether all of them could be made. */
  private boolean addAll(List<DraftStore.Change> changes) {
    try {
      changes.forEach(change -> add(LiveDraft.edit(change.edit()), change));
      return true;
    } catch (InvalidModel | MissingTarget e) {
      return false;
    }
  }

  private void add(Edit edit, DraftStore.Change by) {
    Rulebase after = edit.apply(state);
    Optional<Edit> inverse = edit.inverse(state);
    if (inverse.isPresent() && !after.equals(state)) {
      version++;
      out.add(
          new DraftStore.Change(
              version,
              "edit",
              0,
              Drafts.readable(edit),
              Drafts.readable(inverse.get()),
              LiveDraft.keys(edit, state),
              by.account(),
              by.accountName(),
              by.by(),
              by.at(),
              null,
              null));
      state = after;
    }
  }
}
