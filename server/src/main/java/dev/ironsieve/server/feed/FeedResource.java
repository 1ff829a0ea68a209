package dev.ironsieve.server.feed;

import dev.ironsieve.core.edition.FeedChange;
import dev.ironsieve.core.model.Feed;
import dev.ironsieve.core.model.FeedKind;
import dev.ironsieve.formats.document.ToModel;
import dev.ironsieve.formats.feed.ReadFeed;
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
 * Lists from outside and their editions. Where they are fetched from is for admins to say, since
 * the server asks there; reading them and deciding about editions is for editors.
 */
@Path("/api/feeds")
@RolesAllowed(Role.MAY_VIEW)
public class FeedResource {
  private static final int MOST_TOLD = 200; // ranges or hosts of one set

  private final Feeds feeds;
  private final FeedEditions editions;
  private final FeedReadings readings;

  FeedResource(Feeds feeds, FeedReadings readings, FeedEditions editions) {
    this.editions = editions;
    this.readings = readings;
    this.feeds = feeds;
  }

  /**
   * One feed in the list.
   *
   * @param triedAt when it was last tried, ISO 8601
   * @param readAt when it was last read without failure
   * @param fault what went wrong if the last try failed
   * @param editions the newest 20, newest first
   */
  public record FeedSummary(
      @Schema(required = true) String name,
      @Schema(
              required = true,
              enumeration = {"addresses", "countries", "categories"})
          String kind,
      @Schema(required = true) FeedSettings settings,
      String triedAt,
      String readAt,
      String fault,
      @Schema(required = true) List<FeedEditionSummary> editions) {}

  /**
   * One edition of a feed.
   *
   * @param by who brought it; nothing if it was the schedule
   * @param entries how many lines are entries
   * @param bad how many lines could not be read
   * @param reasons why it waits, or waited, for a person
   * @param decidedBy who let it through or refused it
   */
  public record FeedEditionSummary(
      @Schema(required = true) String name,
      @Schema(required = true) String at,
      String by,
      @Schema(required = true) int entries,
      @Schema(required = true) int bad,
      @Schema(required = true) List<String> reasons,
      @Schema(
              required = true,
              enumeration = {"offered", "held", "refused"})
          String state,
      String decidedBy) {}

  /**
   * What is in an edition.
   *
   * @param before the edition that it is compared with: the one offered before; nothing for the
   *     first
   */
  public record FeedEditionReport(
      @Schema(required = true) List<FeedSetSummary> sets,
      @Schema(required = true) List<ReadFeed.Fault> faults,
      String before,
      @Schema(required = true) List<SetDifference> changes) {}

  /** A named set. */
  public record FeedSetSummary(
      @Schema(required = true) String name, @Schema(required = true) int entries) {}

  /**
   * What is otherwise in a set.
   *
   * @param gained the first {@value #MOST_TOLD} of those that are new
   * @param lost the first {@value #MOST_TOLD} of those that are gone
   */
  public record SetDifference(
      @Schema(required = true) String set,
      @Schema(required = true) int gainedCount,
      @Schema(required = true) List<String> gained,
      @Schema(required = true) int lostCount,
      @Schema(required = true) List<String> lost) {}

  /** A feed to add. */
  public record NewFeed(
      @Schema(required = true) String name,
      @Schema(required = true) String kind,
      @Schema(required = true) FeedSettings settings) {}

  /** Other settings of a feed. */
  public record OtherSettings(@Schema(required = true) FeedSettings settings) {}

  /**
   * What is decided about an edition that waits.
   *
   * @param offer whether rulebases are offered it; if not, it is refused
   */
  public record Decision(@Schema(required = true) Boolean offer) {}

  /** By name. */
  @GET
  public List<FeedSummary> list() {
    return feeds.all().stream().map(FeedResource::listed).toList();
  }

  private static FeedSummary listed(Feeds.Known known) {
    StoredFeed row = known.feed();
    return new FeedSummary(
        row.name(),
        row.kind(),
        new FeedSettings(row.everyMinutes(), row.mostBytes(), row.mostPercent(), row.url()),
        known.tried().map(reading -> reading.at().toString()).orElse(null),
        known.read().map(reading -> reading.at().toString()).orElse(null),
        known.tried().map(FeedReading::fault).orElse(null),
        known.reports().stream().map(report -> listed(row, report)).toList());
  }

  private static FeedEditionSummary listed(StoredFeed row, StoredFeedEdition report) {
    return new FeedEditionSummary(
        FeedEditions.edition(row, report),
        report.at().toString(),
        report.by(),
        report.entries(),
        report.bad(),
        List.of(report.reasons()),
        report.state(),
        report.decidedBy());
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
    if (settings == null) {
      throw new Refusal.Invalid("$.settings", "how it is fetched", "nothing");
    }
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
    FeedEditions.Edition found = editions.edition(feed, edition);
    Feed before = found.before();
    return new FeedEditionReport(
        found.feed().sets().stream()
            .map(set -> new FeedSetSummary(set.name(), set.size()))
            .toList(),
        found.faults(),
        before == null ? null : before.edition(),
        before == null
            ? List.of()
            : FeedChange.sets(before, found.feed()).stream()
                .map(FeedResource::difference)
                .toList());
  }

  private static SetDifference difference(FeedChange.SetChange change) {
    return new SetDifference(
        change.set(),
        change.gained().size(),
        change.gained().stream().limit(MOST_TOLD).toList(),
        change.lost().size(),
        change.lost().stream().limit(MOST_TOLD).toList());
  }

  /** Decides about an edition that waits. */
  @PUT
  @Path("/{feed}/editions/{edition}/decision")
  @RolesAllowed(Role.MAY_EDIT)
  public List<FeedSummary> decide(
      String feed, String edition, Decision body, @Context SecurityIdentity identity) {
    Refusal.requireBody(body);
    if (body.offer() == null) {
      throw new Refusal.Invalid("$.offer", "true or false", "nothing");
    }
    editions.decide(feed, edition, body.offer(), SessionMechanism.account(identity).id());
    return list();
  }
}
