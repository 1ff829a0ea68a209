package dev.ironsieve.server.revision;

import dev.ironsieve.core.model.InvalidModel;
import dev.ironsieve.core.rulebase.CommonRules;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.formats.Digest;
import dev.ironsieve.formats.Json;
import dev.ironsieve.formats.document.FromModel;
import dev.ironsieve.server.common.Below;
import dev.ironsieve.server.common.CommonRulebases;
import dev.ironsieve.server.draft.DraftState;
import dev.ironsieve.server.draft.Drafts;
import dev.ironsieve.server.gateway.Rollouts;
import dev.ironsieve.server.jdbc.Sql;
import dev.ironsieve.server.refusal.Refusal;
import jakarta.enterprise.context.ApplicationScoped;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/**
 * What a publish of a common rulebase does to the rulebases below it: each gets a revision with the
 * rules that it has in force and the new common ones. Its unpublished changes stay changes of its
 * draft.
 */
@ApplicationScoped
class BelowPublishes {
  private final CommonRulebases rulebases;
  private final RevisionDocuments documents;
  private final Drafts drafts;
  private final Rollouts rollouts;

  BelowPublishes(
      CommonRulebases rulebases, RevisionDocuments documents, Drafts drafts, Rollouts rollouts) {
    this.rollouts = rollouts;
    this.rulebases = rulebases;
    this.documents = documents;
    this.drafts = drafts;
  }

  /**
   * A rulebase below, before and after.
   *
   * @param inForce its newest revision
   * @param next the revision after it; equal to {@code inForce} if that is not below the common
   *     rulebase
   * @param draft before
   * @param nextDraft the draft afterwards
   */
  record Target(
      Below below, Rulebase inForce, Rulebase next, DraftState draft, Rulebase nextDraft) {
    boolean isPublished() {
      return !next.equals(inForce);
    }
  }

  /**
   * The rulebases below a common one, in the order in which they are published.
   *
   * @param draft of the common rulebase
   * @throws Refusal.WrongState if the common rules cannot be put into one of them
   */
  List<Target> targets(long common, DraftState draft) {
    Map<String, CommonRules> rules = new HashMap<>(); // by the name of their rulebase
    add(CommonRules.of(draft.rulebase(), draft.revision() + 1), rules);
    List<Target> out = new ArrayList<>();
    for (Below below : rulebases.below(common)) {
      try {
        Target target = target(below, rules);
        if (below.kind().equals("common")) {
          add(CommonRules.of(target.next(), below.revision() + 1), rules);
        }
        out.add(target);
      } catch (InvalidModel e) {
        throw new Refusal.WrongState(
            "The common rules do not fit into \"%s\": %s.".formatted(below.name(), e.getMessage()));
      }
    }
    return out;
  }

  private static void add(CommonRules common, Map<String, CommonRules> rules) {
    rules.put(common.rulebase(), common);
  }

  private Target target(Below below, Map<String, CommonRules> rules) {
    DraftState draft = drafts.state(below.id());
    Rulebase inForce = documents.rulebase(below.id(), draft.revision());
    return new Target(below, inForce, under(inForce, rules), draft, under(draft.rulebase(), rules));
  }

  private static Rulebase under(Rulebase rulebase, Map<String, CommonRules> rules) {
    return rulebase
        .common()
        .map(CommonRules::rulebase)
        .map(rules::get)
        .map(rulebase::under)
        .orElse(rulebase);
  }

  /**
   * Stores the revisions, and puts the drafts onto them.
   *
   * @param by the publish of the common rulebase
   * @param number of its revision
   */
  void store(Sql sql, List<Target> targets, RevisionStore.Next by, int number) throws SQLException {
    String name = RevisionStore.rulebaseName(sql, by.rulebase());
    for (Target target : targets) {
      long id = target.below().id();
      int revision = target.draft().revision();
      if (target.isPublished()) {
        String content = Json.write(FromModel.rulebase(target.next()));
        RevisionStore.Next next =
            new RevisionStore.Next(
                id,
                target.draft().version(),
                content,
                Digest.of(content),
                target.next().commonName(),
                by.account(),
                by.approver(),
                "Common rules: revision %d of %s".formatted(number, name),
                by.overrideReason());
        revision =
            RevisionStore.publish(sql, next)
                .orElseThrow(
                    () ->
                        new Refusal.WrongState(
                            "\"%s\" was changed at the same moment. Review it again."
                                .formatted(target.below().name())));
        ApprovalStore.delete(sql, id);
        rollouts.published(sql, id, revision, revision - 1, null);
        drafts.rebase(sql, id, revision, target.next(), target.nextDraft(), by.account());
      } else {
        drafts.adopt(sql, id, target.nextDraft(), by.account());
      }
    }
  }
}
