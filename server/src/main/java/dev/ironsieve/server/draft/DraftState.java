package dev.ironsieve.server.draft;

import dev.ironsieve.core.rulebase.Rulebase;

/**
 * A draft at one of its versions.
 *
 * @param revision on which it is based, which is the newest
 * @param changes the number of edits that are in force since
 */
public record DraftState(int revision, long version, int changes, Rulebase rulebase) {
  static DraftState of(LiveDraft draft) {
    LiveDraft.State state = draft.state();
    return new DraftState(draft.revision(), state.version(), state.changes(), state.rulebase());
  }
}
