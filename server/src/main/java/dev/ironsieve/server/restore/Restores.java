package dev.ironsieve.server.restore;

import dev.ironsieve.core.edit.Edit;
import dev.ironsieve.core.edit.RestoredRules;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.server.draft.Drafts;
import dev.ironsieve.server.refusal.Refusal;
import dev.ironsieve.server.revision.RevisionDocuments;
import jakarta.enterprise.context.ApplicationScoped;
import java.util.List;
import java.util.Optional;

/** Takes drafts back to revisions and named states. */
@ApplicationScoped
class Restores {
  private static final int MOST_RULES = 100;

  private final Drafts drafts;
  private final RevisionDocuments revisions;
  private final NamedStates states;

  Restores(Drafts drafts, RevisionDocuments revisions, NamedStates states) {
    this.drafts = drafts;
    this.revisions = revisions;
    this.states = states;
  }

  /**
   * Takes a draft, or some of its rules, back to another state; one change, which can be undone.
   *
   * @throws Refusal.WrongState if that changes nothing
   * @throws Refusal.EditConflict if another person changed what it changes since it was seen
   */
  void restore(long rulebase, RestoreRequest request, Drafts.Requester requester) {
    if ((request.revision() == null) == (request.state() == null)) {
      throw new Refusal.Invalid(
          "$", "either a revision or a state", request.state() == null ? "neither" : "both");
    }
    List<String> rules = request.rules();
    if (rules != null && (rules.isEmpty() || rules.size() > MOST_RULES || rules.contains(null))) {
      throw new Refusal.Invalid(
          "$.rules",
          "ids of 1 to " + MOST_RULES + " rules",
          rules.size() + (rules.contains(null) ? " with an empty one" : ""));
    }
    String said = request.state() == null ? "revision " + request.revision() : request.state();
    Rulebase wanted =
        request.state() == null
            ? revisions.rulebase(rulebase, request.revision())
            : states.rulebase(rulebase, request.state());
    Rulebase now = drafts.rulebase(rulebase);
    Edit edit =
        (rules == null ? whole(said, wanted, now) : RestoredRules.of(rules, wanted, now))
            .orElseThrow(() -> new Refusal.WrongState("The draft is equal to that state already."));
    drafts.edit(rulebase, request.version(), edit, requester);
  }

  private static Optional<Edit> whole(String said, Rulebase wanted, Rulebase now) {
    Edit edit = new Edit.Restore(said, wanted);
    return edit.inverse(now).map(inverse -> edit);
  }
}
