package dev.ironsieve.server.draft;

import dev.ironsieve.core.edit.Edit;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.formats.document.ToModel;
import dev.ironsieve.server.account.Role;
import dev.ironsieve.server.account.SessionMechanism;
import dev.ironsieve.server.refusal.Refusal;
import io.quarkus.security.identity.SecurityIdentity;
import io.smallrye.common.annotation.Blocking;
import io.smallrye.mutiny.Multi;
import jakarta.annotation.security.RolesAllowed;
import jakarta.ws.rs.BeanParam;
import jakarta.ws.rs.DefaultValue;
import jakarta.ws.rs.GET;
import jakarta.ws.rs.HeaderParam;
import jakarta.ws.rs.PATCH;
import jakarta.ws.rs.POST;
import jakarta.ws.rs.Path;
import jakarta.ws.rs.Produces;
import jakarta.ws.rs.QueryParam;
import jakarta.ws.rs.core.Context;
import jakarta.ws.rs.core.MediaType;
import jakarta.ws.rs.core.Response;
import jakarta.ws.rs.sse.OutboundSseEvent;
import jakarta.ws.rs.sse.Sse;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.eclipse.microprofile.openapi.annotations.media.Content;
import org.eclipse.microprofile.openapi.annotations.media.Schema;
import org.eclipse.microprofile.openapi.annotations.parameters.Parameter;
import org.eclipse.microprofile.openapi.annotations.responses.APIResponse;

/** One rulebase's draft. */
@Path("/api/rulebases/{rulebase}/draft")
@RolesAllowed(Role.MAY_VIEW)
public class DraftResource {
  private static final int MOST_HISTORY = 500;
  private static final int MOST_TERMS = 40;

  private final Drafts drafts;
  private final DraftHistory history;
  private final DraftQuestions questions;
  private final DraftEvents events;
  private final OfferedEditions offered;

  DraftResource(
      Drafts drafts,
      DraftQuestions questions,
      DraftEvents events,
      OfferedEditions offered,
      DraftHistory history) {
    this.history = history;
    this.drafts = drafts;
    this.questions = questions;
    this.events = events;
    this.offered = offered;
  }

  @GET
  @APIResponse(
      responseCode = "200",
      content =
          @Content(
              mediaType = MediaType.APPLICATION_JSON,
              schema = @Schema(implementation = DraftDocument.class)))
  public Response draft(
      long rulebase, @HeaderParam("Accept-Encoding") @Parameter(hidden = true) String accepts) {
    byte[] zipped = questions.document(rulebase).gzip();
    return accepts != null && accepts.contains("gzip")
        ? Response.ok(zipped, MediaType.APPLICATION_JSON)
            .header("Content-Encoding", "gzip")
            .header("Vary", "Accept-Encoding")
            .build()
        : Response.ok(DraftDocuments.unzipped(zipped), MediaType.APPLICATION_JSON).build();
  }

  @PATCH
  @RolesAllowed(Role.MAY_EDIT)
  public ChangeDocument edit(
      long rulebase,
      EditRequest body,
      @BeanParam ChangeHeaders headers,
      @Context SecurityIdentity identity) {
    Refusal.requireBody(body);
    Refusal.require(body.version(), "$.version", "a whole number");
    Edit edit = EditDocuments.read(body.edit(), "$.edit");
    offered.check(edit);
    return drafts.edit(rulebase, body.version(), edit, headers.by(identity));
  }

  @POST
  @Path("/undo")
  @RolesAllowed(Role.MAY_EDIT)
  public ChangeDocument undo(
      long rulebase, @BeanParam ChangeHeaders headers, @Context SecurityIdentity identity) {
    return drafts.undo(rulebase, headers.by(identity));
  }

  /** Undoes every edit since the revision in force, whoever made it. */
  @POST
  @Path("/discard")
  @RolesAllowed(Role.MAY_EDIT)
  public void discard(
      long rulebase,
      DiscardRequest body,
      @BeanParam ChangeHeaders headers,
      @Context SecurityIdentity identity) {
    Refusal.requireBody(body);
    Refusal.require(body.version(), "$.version", "a whole number");
    drafts.discard(rulebase, body.version(), headers.by(identity).withoutKey());
  }

  @POST
  @Path("/redo")
  @RolesAllowed(Role.MAY_EDIT)
  public ChangeDocument redo(
      long rulebase, @BeanParam ChangeHeaders headers, @Context SecurityIdentity identity) {
    return drafts.redo(rulebase, headers.by(identity));
  }

  @GET
  @Path("/changes")
  public List<ChangeDocument> history(
      long rulebase,
      @QueryParam("before") @DefaultValue("9223372036854775807") long before,
      @QueryParam("limit") @DefaultValue("100") int limit) {
    if (limit < 1 || limit > MOST_HISTORY) {
      throw new Refusal.Invalid("limit", "1 to " + MOST_HISTORY, limit + "");
    }
    return history.history(rulebase, before, limit);
  }

  /**
   * Names of people, applications and the like that fit what was typed.
   *
   * @param of words of the coordinates that are wanted
   */
  @GET
  @Path("/terms")
  public List<TermOption> terms(
      long rulebase,
      @QueryParam("of") List<String> of,
      @QueryParam("text") @DefaultValue("") String text) {
    Set<Coordinate> coordinates = EnumSet.noneOf(Coordinate.class);
    of.forEach(word -> coordinates.add(ToModel.coordinate(word, "of")));
    return questions.terms(rulebase, coordinates, text, MOST_TERMS);
  }

  /** The number of values of each named set, by the word of its coordinate and by its name. */
  @GET
  @Path("/terms/sizes")
  public Map<String, Map<String, Integer>> sizes(long rulebase) {
    return questions.termSizes(rulebase);
  }

  @POST
  @Path("/probe")
  public ProbeAnswer probe(long rulebase, ProbeRequest body) {
    Refusal.requireBody(body);
    Refusal.require(body.line(), "$.line", "a connection");
    return questions.probe(rulebase, body.line());
  }

  @GET
  @Path("/events")
  @Produces(MediaType.SERVER_SENT_EVENTS)
  @Blocking
  @APIResponse(
      responseCode = "200",
      description =
          "Events \"change\" with a ChangeDocument, \"presence\" with a Presence, \"published\" with a"
              + " Published, and \"beat\".",
      content =
          @Content(
              mediaType = MediaType.SERVER_SENT_EVENTS,
              schema =
                  @Schema(
                      oneOf = {
                        ChangeDocument.class,
                        DraftEvents.Presence.class,
                        DraftEvents.Published.class
                      })))
  public Multi<OutboundSseEvent> events(
      long rulebase, @Context Sse sse, @Context SecurityIdentity identity) {
    drafts.rulebase(rulebase);
    return events.open(rulebase, SessionMechanism.account(identity).displayName(), sse);
  }
}
