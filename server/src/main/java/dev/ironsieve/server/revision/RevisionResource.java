package dev.ironsieve.server.revision;

import dev.ironsieve.formats.document.RulebaseDocument;
import dev.ironsieve.server.account.Role;
import dev.ironsieve.server.account.SessionMechanism;
import dev.ironsieve.server.draft.DraftDocument;
import dev.ironsieve.server.refusal.Refusal;
import io.quarkus.security.identity.SecurityIdentity;
import jakarta.annotation.security.RolesAllowed;
import jakarta.ws.rs.DELETE;
import jakarta.ws.rs.GET;
import jakarta.ws.rs.POST;
import jakarta.ws.rs.PUT;
import jakarta.ws.rs.Path;
import jakarta.ws.rs.core.Context;
import java.util.List;

/** The revisions of a rulebase, and the review of its draft before it becomes one. */
@Path("/api/rulebases/{rulebase}")
@RolesAllowed(Role.MAY_VIEW)
public class RevisionResource {
  private final Revisions revisions;
  private final Approvals approvals;

  private final ScheduledPublishes scheduled;

  RevisionResource(Revisions revisions, Approvals approvals, ScheduledPublishes scheduled) {
    this.revisions = revisions;
    this.approvals = approvals;
    this.scheduled = scheduled;
  }

  /** How the rulebase is published, and the request for its draft as it is. */
  @GET
  @Path("/publishing")
  public PublishingDocument publishing(long rulebase) {
    return approvals.publishing(rulebase);
  }

  @PUT
  @Path("/publishing")
  @RolesAllowed(Role.MAY_ADMINISTER)
  public void changePublishing(long rulebase, PublishingSettings body) {
    Refusal.requireBody(body);
    approvals.require(rulebase, Refusal.require(body.fourEyes(), "$.fourEyes", "true or false"));
  }

  /** Asks another person to publish the draft as it is. */
  @PUT
  @Path("/draft/approval")
  @RolesAllowed(Role.MAY_EDIT)
  public void ask(long rulebase, PublishRequest body, @Context SecurityIdentity identity) {
    Refusal.requireBody(body);
    Refusal.require(body.version(), "$.version", "a whole number");
    approvals.ask(rulebase, body, SessionMechanism.account(identity));
  }

  /** Publishes what another person asked for. */
  @POST
  @Path("/draft/approval")
  @RolesAllowed(Role.MAY_PUBLISH)
  public RevisionSummary approve(
      long rulebase, ApprovalRequest body, @Context SecurityIdentity identity) {
    Refusal.requireBody(body);
    Refusal.require(body.version(), "$.version", "a whole number");
    Refusal.require(body.digest(), "$.digest", "a SHA-256");
    return approvals.approve(rulebase, body, SessionMechanism.account(identity));
  }

  /** Takes the request to publish back. */
  @DELETE
  @Path("/draft/approval")
  @RolesAllowed(Role.MAY_EDIT)
  public void withdraw(long rulebase) {
    approvals.withdraw(rulebase);
  }

  /** Publishes the draft later, if it is still as it is now and nothing blocks it then. */
  @PUT
  @Path("/draft/scheduled")
  @RolesAllowed(Role.MAY_PUBLISH)
  public void schedule(long rulebase, ScheduleRequest body, @Context SecurityIdentity identity) {
    Refusal.requireBody(body);
    Refusal.require(body.version(), "$.version", "a whole number");
    Refusal.require(body.due(), "$.due", "a time");
    scheduled.schedule(rulebase, body, SessionMechanism.account(identity));
  }

  /** Cancels a publish that waits, or dismisses one that failed. */
  @DELETE
  @Path("/draft/scheduled")
  @RolesAllowed(Role.MAY_PUBLISH)
  public void cancelScheduled(long rulebase) {
    scheduled.cancel(rulebase);
  }

  /** The difference in meaning between the draft and the revision in force. */
  @GET
  @Path("/draft/review")
  public ReviewDocument review(long rulebase) {
    return revisions.review(rulebase);
  }

  /** What a publish of a common draft changes in a rulebase below it. */
  @GET
  @Path("/draft/review/below/{other}")
  public ReviewDocument reviewBelow(long rulebase, long other) {
    return revisions.reviewBelow(rulebase, other);
  }

  /** Newest first. */
  @GET
  @Path("/revisions")
  public List<RevisionSummary> list(long rulebase) {
    return revisions.all(rulebase);
  }

  /** Publishes the draft as the next revision. */
  @POST
  @Path("/revisions")
  @RolesAllowed(Role.MAY_PUBLISH)
  public RevisionSummary publish(
      long rulebase, PublishRequest body, @Context SecurityIdentity identity) {
    Refusal.requireBody(body);
    Refusal.require(body.version(), "$.version", "a whole number");
    return revisions.publish(rulebase, body, SessionMechanism.account(identity).id());
  }

  @GET
  @Path("/revisions/{number}")
  public RulebaseDocument document(long rulebase, int number) {
    return revisions.document(rulebase, number);
  }

  /** A revision as a view shows it, with its findings. */
  @GET
  @Path("/revisions/{number}/rules")
  public DraftDocument rules(long rulebase, int number) {
    return revisions.rules(rulebase, number);
  }

  /** The difference in meaning between two revisions. */
  @GET
  @Path("/revisions/{number}/since/{earlier}")
  public ReviewDocument compare(long rulebase, int number, int earlier) {
    return revisions.compare(rulebase, earlier, number);
  }
}
