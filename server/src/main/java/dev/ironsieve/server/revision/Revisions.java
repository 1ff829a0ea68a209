package dev.ironsieve.server.revision;

import dev.ironsieve.core.analysis.LiveAnalysis;
import dev.ironsieve.core.model.Names;
import dev.ironsieve.core.model.RulebaseKind;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.formats.Digest;
import dev.ironsieve.formats.Json;
import dev.ironsieve.formats.document.FromModel;
import dev.ironsieve.formats.document.RulebaseDocument;
import dev.ironsieve.server.accepted.AcceptedFindings;
import dev.ironsieve.server.audit.AuditAction;
import dev.ironsieve.server.audit.AuditTrail;
import dev.ironsieve.server.comment.ReviewComments;
import dev.ironsieve.server.draft.DraftDocument;
import dev.ironsieve.server.draft.DraftQuestions;
import dev.ironsieve.server.draft.DraftState;
import dev.ironsieve.server.draft.Drafts;
import dev.ironsieve.server.gateway.FirstGateways;
import dev.ironsieve.server.gateway.Rollouts;
import dev.ironsieve.server.jdbc.Database;
import dev.ironsieve.server.question.QuestionPool;
import dev.ironsieve.server.refusal.Refusal;
import jakarta.enterprise.context.ApplicationScoped;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/** Reviews and publishes drafts, and reads revisions. */
@ApplicationScoped
class Revisions {
  private final Database database;
  private final RevisionDocuments documents;
  private final Drafts drafts;
  private final DraftQuestions questions;
  private final AcceptedFindings accepted;
  private final Reviews reviews;
  private final BelowPublishes belowPublishes;
  private final ReviewComments comments;
  private final Rollouts rollouts;
  private final QuestionPool pool;
  private final AuditTrail trail;

  Revisions(
      Database database,
      RevisionDocuments documents,
      Drafts drafts,
      DraftQuestions questions,
      AcceptedFindings accepted,
      Reviews reviews,
      BelowPublishes belowPublishes,
      ReviewComments comments,
      Rollouts rollouts,
      QuestionPool pool,
      AuditTrail trail) {
    this.database = database;
    this.documents = documents;
    this.drafts = drafts;
    this.questions = questions;
    this.accepted = accepted;
    this.reviews = reviews;
    this.belowPublishes = belowPublishes;
    this.comments = comments;
    this.rollouts = rollouts;
    this.pool = pool;
    this.trail = trail;
  }

  /** The revisions of a rulebase, newest first. */
  List<RevisionSummary> all(long rulebase) {
    drafts.state(rulebase); // refuses an unknown one
    return database
        .inTransaction("listing revisions", sql -> RevisionStore.all(sql, rulebase))
        .stream()
        .map(RevisionSummary::of)
        .toList();
  }

  /** The draft against the revision that is in force. */
  ReviewDocument review(long rulebase) {
    DraftState draft = drafts.state(rulebase);
    List<ReviewDocument.Blocker> below = blockersBelow(draft, rulebase);
    int revision = draft.revision();
    Rulebase inForce = documents.rulebase(rulebase, revision);
    pool.ask(() -> reviews.expect(rulebase, revision, inForce));
    Set<String> known = accepted.keys(rulebase);
    return questions
        .askAnalysed(
            rulebase,
            asked ->
                reviews.review(rulebase, revision, inForce, asked.draft(), asked.analysis(), known))
        .blockedBy(below);
  }

  /** What stops the publish of a common draft in the rulebases below it. */
  private List<ReviewDocument.Blocker> blockersBelow(DraftState draft, long rulebase) {
    try {
      List<ReviewDocument.Blocker> out = new ArrayList<>();
      for (BelowPublishes.Target target : targets(rulebase, draft)) {
        for (ReviewDocument.Blocker blocker : pool.ask(() -> blockers(target))) {
          String text = "%s: %s".formatted(target.below().name(), blocker.text());
          out.add(new ReviewDocument.Blocker("below", text, null));
        }
      }
      return out;
    } catch (Refusal.WrongState e) {
      return List.of(new ReviewDocument.Blocker("below", e.getMessage(), null));
    }
  }

  /**
   * What a publish of a common draft changes in a rulebase below it.
   *
   * @throws Refusal.NotFound if it is not below
   */
  ReviewDocument reviewBelow(long common, long below) {
    DraftState draft = drafts.state(common);
    BelowPublishes.Target target =
        targets(common, draft).stream()
            .filter(one -> one.below().id() == below)
            .findFirst()
            .orElseThrow(() -> new Refusal.NotFound("That rulebase is not below this one."));
    return pool.ask(() -> review(target, draft.version()));
  }

  private ReviewDocument review(BelowPublishes.Target target, long version) {
    DraftState next =
        new DraftState(target.draft().revision(), version, target.draft().changes(), target.next());
    return reviews.review(target.below().id(), next.revision(), target.inForce(), next);
  }

  private List<ReviewDocument.Blocker> blockers(BelowPublishes.Target target) {
    return reviews.blockers(
        target.below().id(), target.draft().revision(), target.inForce(), target.next());
  }

  private List<BelowPublishes.Target> targets(long rulebase, DraftState draft) {
    return draft.rulebase().kind() == RulebaseKind.COMMON
        ? belowPublishes.targets(rulebase, draft)
        : List.of();
  }

  /** A revision against an earlier one. */
  ReviewDocument compare(long rulebase, int earlier, int later) {
    Rulebase before = documents.rulebase(rulebase, earlier);
    Rulebase after = documents.rulebase(rulebase, later);
    return pool.ask(() -> reviews.compare(rulebase, earlier, before, after));
  }

  /** A revision with its findings, as of today. */
  DraftDocument rules(long rulebase, int number) {
    Rulebase content = documents.rulebase(rulebase, number);
    return pool.ask(
        () -> {
          long start = System.nanoTime();
          LocalDate today = LocalDate.now(content.gatewaySettings().timeZone());
          LiveAnalysis analysis = new LiveAnalysis(content, today);
          analysis.answerAll();
          return DraftDocument.of(
              new DraftDocument.Source(rulebase, content.name(), number, 0, 0),
              analysis,
              (System.nanoTime() - start) / 1e6);
        });
  }

  /** The document of a revision. */
  RulebaseDocument document(long rulebase, int number) {
    return documents.document(rulebase, number);
  }

  /**
   * Publishes a draft as the next revision.
   *
   * @param account id of who publishes
   * @throws Refusal.WrongState if the draft is another than was reviewed, has no changes, or is
   *     blocked and no reason is given
   */
  RevisionSummary publish(long rulebase, PublishRequest request, long account) {
    checkFirst(rulebase, request.first());
    return release(nextAlone(rulebase, request, account), request.first());
  }

  /** As {@link #next}, where nobody has to approve it. */
  RevisionStore.Next nextAlone(long rulebase, PublishRequest request, long account) {
    if (database.inTransaction(
        "reading how a rulebase is published", sql -> ApprovalStore.fourEyes(sql, rulebase))) {
      throw new Refusal.WrongState("Another person has to approve this publish. Ask for it.");
    }
    return next(rulebase, request, account);
  }

  private void checkFirst(long rulebase, FirstGateways first) {
    if (first != null && drafts.rulebase(rulebase).kind() == RulebaseKind.COMMON) {
      throw new Refusal.WrongState("Common rules are published to all rulebases below at once.");
    }
    rollouts.check(rulebase, first);
  }

  /**
   * Publishes what one person asked for and another approves.
   *
   * @param first the gateways that follow it before the others, or null
   */
  RevisionSummary publishApproved(
      long rulebase, ApprovalStore.Stored request, long approver, FirstGateways first) {
    checkFirst(rulebase, first);
    DraftState draft = drafts.state(rulebase);
    String content = Json.write(FromModel.rulebase(draft.rulebase()));
    return release(
        new RevisionStore.Next(
            rulebase,
            request.version(),
            content,
            request.digest(),
            draft.rulebase().commonName(),
            request.account(),
            approver,
            request.note(),
            request.overrideReason()),
        first);
  }

  /**
   * The draft as the next revision, not published yet.
   *
   * @throws Refusal.WrongState as {@link #publish}
   */
  RevisionStore.Next next(long rulebase, PublishRequest request, long account) {
    String note = request.note() == null ? "" : Names.checkNote(request.note());
    String reason = request.overrideReason();
    boolean overridden = reason != null && !Names.checkNote(reason).isBlank();
    DraftState draft = drafts.state(rulebase);
    refuseUnready(draft, rulebase, request.version(), overridden);
    String content = Json.write(FromModel.rulebase(draft.rulebase()));
    return new RevisionStore.Next(
        rulebase,
        draft.version(),
        content,
        Digest.of(content),
        draft.rulebase().commonName(),
        account,
        null,
        note,
        overridden ? reason.strip() : null);
  }

  private RevisionSummary release(RevisionStore.Next next, FirstGateways first) {
    List<Long> ids = new ArrayList<>(List.of(next.rulebase()));
    targets(next.rulebase(), drafts.state(next.rulebase()))
        .forEach(target -> ids.add(target.below().id()));
    int number =
        drafts.publishing(
            ids,
            () -> {
              DraftState draft = drafts.state(next.rulebase());
              refuseOtherThan(next.version(), draft);
              if (!Arrays.equals(Digest.of(next.content()), next.digest())) {
                throw new IllegalStateException("the draft is not what was approved");
              }
              List<BelowPublishes.Target> targets = targets(next.rulebase(), draft);
              if (!targets.stream().allMatch(target -> ids.contains(target.below().id()))) {
                throw new Refusal.WrongState(
                    "Another rulebase was put below this one. Review it again.");
              }
              return store(next, targets, first);
            });
    return all(next.rulebase()).stream()
        .filter(one -> one.number() == number)
        .findFirst()
        .orElseThrow();
  }

  private void refuseUnready(DraftState draft, long rulebase, long version, boolean overridden) {
    refuseOtherThan(version, draft);
    if (draft.changes() == 0) {
      throw new Refusal.WrongState("The draft has no changes to publish.");
    }
    targets(rulebase, draft); // refuses common rules that do not fit below
    int blockers = overridden ? 0 : review(rulebase).blockers().size();
    if (blockers > 0) {
      throw new Refusal.WrongState(
          "%d blockers stop the publish. Remove them, or give a reason to override them."
              .formatted(blockers));
    }
  }

  private static void refuseOtherThan(long version, DraftState draft) {
    if (draft.version() != version) {
      throw new Refusal.WrongState(
          "The draft was changed after the review. Review it again, and then publish.");
    }
  }

  private int store(
      RevisionStore.Next next, List<BelowPublishes.Target> targets, FirstGateways first) {
    return database
        .inTransaction(
            "publishing a draft",
            sql -> {
              int previous = rollouts.followed(sql, next.rulebase());
              Optional<Integer> number = RevisionStore.publish(sql, next);
              if (number.isPresent()) {
                ApprovalStore.delete(sql, next.rulebase());
                ScheduledPublishStore.delete(sql, next.rulebase());
                String reason = next.overrideReason();
                trail.add(
                    sql,
                    reason == null ? AuditAction.PUBLISHED : AuditAction.PUBLISHED_OVER_BLOCKERS,
                    RevisionStore.rulebaseName(sql, next.rulebase()) + ", revision " + number.get(),
                    reason == null ? next.note() : reason);
                rollouts.published(sql, next.rulebase(), number.get(), previous, first);
                comments.published(sql, next.rulebase(), number.get());
                belowPublishes.store(sql, targets, next, number.get());
              }
              return number;
            })
        .orElseThrow(
            () ->
                new Refusal.WrongState(
                    "The draft was changed elsewhere at the same moment. Review it again."));
  }
}
