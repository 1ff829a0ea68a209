package dev.ironsieve.server.revision;

import dev.ironsieve.server.account.Account;
import dev.ironsieve.server.audit.AuditAction;
import dev.ironsieve.server.audit.AuditTrail;
import dev.ironsieve.server.draft.DraftState;
import dev.ironsieve.server.draft.Drafts;
import dev.ironsieve.server.jdbc.Database;
import dev.ironsieve.server.refusal.Refusal;
import jakarta.enterprise.context.ApplicationScoped;
import java.util.HexFormat;
import java.util.Optional;

/** Four eyes: one person asks for a publish, and another approves exactly that content. */
@ApplicationScoped
class Approvals {
  private final Database database;
  private final Drafts drafts;
  private final Revisions revisions;
  private final AuditTrail trail;

  Approvals(Database database, Drafts drafts, Revisions revisions, AuditTrail trail) {
    this.database = database;
    this.drafts = drafts;
    this.revisions = revisions;
    this.trail = trail;
  }

  /** How the rulebase is published, and the request for its draft as it is. */
  PublishingDocument publishing(long rulebase) {
    DraftState draft = drafts.state(rulebase);
    return database.inTransaction(
        "reading how a rulebase is published",
        sql ->
            new PublishingDocument(
                ApprovalStore.fourEyes(sql, rulebase),
                ApprovalStore.request(sql, rulebase)
                    .filter(request -> request.version() == draft.version())
                    .map(Approvals::document)
                    .orElse(null),
                ScheduledPublishStore.of(sql, rulebase)
                    .map(scheduled -> document(scheduled, draft))
                    .orElse(null)));
  }

  private static PublishingDocument.Request document(ApprovalStore.Stored request) {
    return new PublishingDocument.Request(
        request.by(),
        request.byName(),
        request.at().toString(),
        HexFormat.of().formatHex(request.digest()),
        request.note(),
        request.overrideReason());
  }

  private static PublishingDocument.Scheduled document(
      ScheduledPublishStore.Stored scheduled, DraftState draft) {
    boolean isOther = scheduled.failed() == null && scheduled.version() != draft.version();
    return new PublishingDocument.Scheduled(
        scheduled.byName(),
        scheduled.due().toString(),
        scheduled.note(),
        scheduled.overrideReason(),
        isOther ? "The draft was changed after it was scheduled." : scheduled.failed());
  }

  /** Requires another person's approval, or no longer. */
  void require(long rulebase, boolean fourEyes) {
    drafts.state(rulebase); // refuses an unknown one
    database.inTransaction(
        "changing how a rulebase is published",
        sql -> {
          ApprovalStore.setFourEyes(sql, rulebase, fourEyes);
          trail.add(
              sql,
              AuditAction.SETTING_CHANGED,
              RevisionStore.rulebaseName(sql, rulebase),
              fourEyes ? "a publish needs an approval" : "a publish needs no approval");
          return null;
        });
  }

  /** Asks for a publish of the draft as it is. */
  void ask(long rulebase, PublishRequest request, Account account) {
    RevisionStore.Next next = revisions.next(rulebase, request, account.id());
    database.inTransaction(
        "asking for an approval",
        sql -> {
          ApprovalStore.put(sql, next);
          String name = RevisionStore.rulebaseName(sql, rulebase);
          trail.add(sql, AuditAction.APPROVAL_ASKED, name, next.note());
          return null;
        });
  }

  /**
   * Publishes what another person asked for.
   *
   * @throws Refusal.WrongState if nobody asks for the draft as it is, or it is another content
   * @throws Refusal.NotAllowed if it is the account's own request
   */
  RevisionSummary approve(long rulebase, ApprovalRequest approval, Account account) {
    Optional<ApprovalStore.Stored> asked =
        database.inTransaction(
            "reading a request to publish", sql -> ApprovalStore.request(sql, rulebase));
    ApprovalStore.Stored request =
        asked
            .filter(one -> one.version() == approval.version())
            .filter(one -> HexFormat.of().formatHex(one.digest()).equals(approval.digest()))
            .orElseThrow(
                () ->
                    new Refusal.WrongState(
                        "Nobody asks to publish this state of the draft. Review it again."));
    if (request.account() == account.id()) {
      throw new Refusal.NotAllowed("Another person has to approve your request.");
    }
    return revisions.publishApproved(rulebase, request, account.id(), approval.first());
  }

  /** Withdraws a request, or declines it. */
  void withdraw(long rulebase) {
    boolean there =
        database.inTransaction(
            "withdrawing a request to publish",
            sql -> {
              boolean deleted = ApprovalStore.delete(sql, rulebase);
              if (deleted) {
                String name = RevisionStore.rulebaseName(sql, rulebase);
                trail.add(sql, AuditAction.REQUEST_WITHDRAWN, name, "");
              }
              return deleted;
            });
    if (!there) {
      throw new Refusal.NotFound("Nobody asks to publish this draft.");
    }
  }
}
