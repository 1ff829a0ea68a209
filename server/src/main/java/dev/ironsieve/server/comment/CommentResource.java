package dev.ironsieve.server.comment;

import dev.ironsieve.server.account.Role;
import dev.ironsieve.server.account.SessionMechanism;
import dev.ironsieve.server.refusal.Refusal;
import io.quarkus.security.identity.SecurityIdentity;
import jakarta.annotation.security.RolesAllowed;
import jakarta.ws.rs.DELETE;
import jakarta.ws.rs.GET;
import jakarta.ws.rs.POST;
import jakarta.ws.rs.Path;
import jakarta.ws.rs.core.Context;
import java.util.List;

/** Comments on the rules of a draft, and those that were made before a revision. */
@Path("/api/rulebases/{rulebase}")
@RolesAllowed(Role.MAY_VIEW)
public class CommentResource {
  private final ReviewComments comments;

  CommentResource(ReviewComments comments) {
    this.comments = comments;
  }

  @GET
  @Path("/draft/comments")
  public List<ReviewComment> ofDraft(long rulebase) {
    return comments.all(rulebase, null);
  }

  @POST
  @Path("/draft/comments")
  @RolesAllowed(Role.MAY_EDIT)
  public void add(long rulebase, NewComment body, @Context SecurityIdentity identity) {
    Refusal.requireBody(body);
    comments.add(rulebase, body, SessionMechanism.account(identity));
  }

  @DELETE
  @Path("/draft/comments/{comment}")
  @RolesAllowed(Role.MAY_EDIT)
  public void delete(long rulebase, long comment, @Context SecurityIdentity identity) {
    comments.delete(rulebase, comment, SessionMechanism.account(identity));
  }

  @GET
  @Path("/revisions/{number}/comments")
  public List<ReviewComment> ofRevision(long rulebase, int number) {
    return comments.all(rulebase, number);
  }
}
