package dev.ironsieve.server.feed;

import dev.ironsieve.core.model.FeedKind;
import dev.ironsieve.formats.document.ToModel;
import dev.ironsieve.server.account.Role;
import dev.ironsieve.server.account.SessionMechanism;
import dev.ironsieve.server.refusal.Refusal;
import io.quarkus.security.identity.SecurityIdentity;
import jakarta.annotation.security.RolesAllowed;
import jakarta.ws.rs.Consumes;
import jakarta.ws.rs.DELETE;
import jakarta.ws.rs.GET;
import jakarta.ws.rs.POST;
import jakarta.ws.rs.PUT;
import jakarta.ws.rs.Path;
import jakarta.ws.rs.core.Context;
import jakarta.ws.rs.core.MediaType;
import java.util.List;
import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * Feeds and their editions. Where they are fetched from is for admins to say, since the server asks
 * there; reading them and deciding about editions is for editors.
 */
@Path("/api/feeds")
@RolesAllowed(Role.MAY_VIEW)
public class FeedResource {
  private final Feeds feeds;
  private final FeedEditions editions;
  private final FeedReadings readings;

  FeedResource(Feeds feeds, FeedReadings readings, FeedEditions editions) {
    this.editions = editions;
    this.readings = readings;
    this.feeds = feeds;
  }

  /** By name. */
  @GET
  public List<FeedSummary> list() {
    return feeds.all().stream().map(FeedSummary::of).toList();
  }

  @POST
  @RolesAllowed(Role.MAY_ADMINISTER)
  public void add(NewFeed body) {
    Refusal.requireBody(body);
    FeedSettings settings = settings(body.settings());
    FeedKind kind = ToModel.feedKind(body.kind(), "$.kind");
    feeds.add(body.name(), kind, settings);
  }

  private static FeedSettings settings(FeedSettings settings) {
    Refusal.require(settings, "$.settings", "how it is fetched");
    return settings.checked();
  }

  @PUT
  @Path("/{feed}")
  @RolesAllowed(Role.MAY_ADMINISTER)
  public void change(String feed, OtherSettings body) {
    Refusal.requireBody(body);
    feeds.change(feed, settings(body.settings()));
  }

  /** Forgets a feed and its editions. Rulebases that have one keep it. */
  @DELETE
  @Path("/{feed}")
  @RolesAllowed(Role.MAY_ADMINISTER)
  public void remove(String feed) {
    feeds.remove(feed);
  }

  /** Fetches a feed now; a failure is in the answer. */
  @POST
  @Path("/{feed}/fetch")
  @RolesAllowed(Role.MAY_EDIT)
  public List<FeedSummary> fetch(String feed, @Context SecurityIdentity identity) {
    readings.fetch(feed, SessionMechanism.account(identity).id());
    return list();
  }

  /** Reads a file; a failure is in the answer. */
  @POST
  @Path("/{feed}/upload")
  @Consumes(MediaType.WILDCARD)
  @RolesAllowed(Role.MAY_EDIT)
  public List<FeedSummary> upload(
      String feed,
      @Schema(implementation = Object.class) byte[] file,
      @Context SecurityIdentity identity) {
    readings.upload(feed, file, SessionMechanism.account(identity).id());
    return list();
  }

  @GET
  @Path("/{feed}/editions/{edition}")
  public FeedEditionReport edition(String feed, String edition) {
    return FeedEditionReport.of(editions.edition(feed, edition));
  }

  /** Decides about an edition that waits. */
  @PUT
  @Path("/{feed}/editions/{edition}/decision")
  @RolesAllowed(Role.MAY_EDIT)
  public List<FeedSummary> decide(
      String feed, String edition, Decision body, @Context SecurityIdentity identity) {
    Refusal.requireBody(body);
    Refusal.require(body.offer(), "$.offer", "true or false");
    editions.decide(feed, edition, body.offer(), SessionMechanism.account(identity).id());
    return list();
  }
}
