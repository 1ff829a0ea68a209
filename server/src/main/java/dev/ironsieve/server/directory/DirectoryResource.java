package dev.ironsieve.server.directory;

import dev.ironsieve.core.directory.Snapshot;
import dev.ironsieve.server.account.Role;
import dev.ironsieve.server.account.SessionMechanism;
import dev.ironsieve.server.refusal.Refusal;
import io.quarkus.security.identity.SecurityIdentity;
import jakarta.annotation.security.RolesAllowed;
import jakarta.ws.rs.DefaultValue;
import jakarta.ws.rs.GET;
import jakarta.ws.rs.POST;
import jakarta.ws.rs.Path;
import jakarta.ws.rs.QueryParam;
import jakarta.ws.rs.core.Context;
import java.util.Optional;

/** The directory of people and its snapshots. */
@Path("/api/directory")
@RolesAllowed(Role.MAY_VIEW)
public class DirectoryResource {
  private static final int MOST_PEOPLE = 500;

  private final Directory directory;
  private volatile PeopleSearch last; // people type letter by letter in one snapshot

  DirectoryResource(Directory directory) {
    this.directory = directory;
  }

  @GET
  public DirectoryState state() {
    Optional<DirectoryReading> tried = directory.last(false);
    return new DirectoryState(
        directory.snapshots().stream()
            .map(row -> new SnapshotSummary(row.name(), row.importedAt().toString(), row.by()))
            .toList(),
        directory.address().orElse(null),
        tried.map(row -> row.at().toString()).orElse(null),
        directory.last(true).map(row -> row.at().toString()).orElse(null),
        tried.map(DirectoryReading::fault).orElse(null));
  }

  /** Reads the directory now; a failure is in the answer. */
  @POST
  @Path("/read")
  @RolesAllowed(Role.MAY_EDIT)
  public DirectoryState read(@Context SecurityIdentity identity) {
    directory.read(SessionMechanism.account(identity).id());
    return state();
  }

  /**
   * @param text words that all have to be found in a name, an id, a group or an attribute
   */
  @GET
  @Path("/{snapshot}/people")
  public People people(
      String snapshot,
      @QueryParam("text") @DefaultValue("") String text,
      @QueryParam("limit") @DefaultValue("100") int limit) {
    if (limit < 1 || limit > MOST_PEOPLE) {
      throw new Refusal.Invalid("limit", "1 to " + MOST_PEOPLE, limit + "");
    }
    Snapshot from = directory.snapshot(snapshot);
    PeopleSearch search = last;
    if (search == null || search.snapshot() != from) {
      search = new PeopleSearch(from);
      last = search;
    }
    return search.find(text, limit);
  }
}
