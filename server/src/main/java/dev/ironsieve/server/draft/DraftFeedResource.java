package dev.ironsieve.server.draft;

import dev.ironsieve.core.edit.Edit;
import dev.ironsieve.core.model.Feed;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.server.account.Role;
import dev.ironsieve.server.feed.FeedEditions;
import dev.ironsieve.server.refusal.Refusal;
import io.quarkus.security.identity.SecurityIdentity;
import jakarta.annotation.security.RolesAllowed;
import jakarta.ws.rs.BeanParam;
import jakarta.ws.rs.GET;
import jakarta.ws.rs.PUT;
import jakarta.ws.rs.Path;
import jakarta.ws.rs.core.Context;
import org.eclipse.microprofile.openapi.annotations.media.Schema;

/** The editions of feeds that one rulebase's draft has. */
@Path("/api/rulebases/{rulebase}/draft/feeds/{feed}/{edition}")
@RolesAllowed(Role.MAY_VIEW)
public class DraftFeedResource {
  private final Drafts drafts;
  private final DraftQuestions questions;
  private final FeedEditions feeds;

  DraftFeedResource(Drafts drafts, DraftQuestions questions, FeedEditions feeds) {
    this.drafts = drafts;
    this.questions = questions;
    this.feeds = feeds;
  }

  /**
   * @param version of the draft that the person saw
   */
  public record TakingFeed(@Schema(required = true) Long version) {}

  /** What taking an edition would change, also one that waits; nothing is changed. */
  @GET
  public EditionEffect effect(long rulebase, String feed, String edition) {
    Rulebase base = drafts.rulebase(rulebase);
    Feed next = feeds.known(feed, edition);
    Feed had =
        base.feed(feed)
            .orElseThrow(
                () ->
                    new Refusal.WrongState(
                        "This rulebase has no edition of \"%s\" yet; just take one."
                            .formatted(next.name())));
    return questions.askRulebase(rulebase, now -> EditionEffect.of(now, had, next));
  }

  /** Takes an edition into the draft. */
  @PUT
  @RolesAllowed(Role.MAY_EDIT)
  public ChangeDocument take(
      long rulebase,
      String feed,
      String edition,
      TakingFeed body,
      @BeanParam ChangeHeaders headers,
      @Context SecurityIdentity identity) {
    Refusal.requireBody(body);
    if (body.version() == null) {
      throw new Refusal.Invalid("$.version", "a whole number", "nothing");
    }
    Edit edit = new Edit.PutFeed(feeds.offered(feed, edition));
    return drafts.edit(rulebase, body.version(), edit, headers.by(identity));
  }
}
