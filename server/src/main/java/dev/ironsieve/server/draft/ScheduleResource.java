package dev.ironsieve.server.draft;

import dev.ironsieve.core.model.Names;
import dev.ironsieve.core.model.ObjectKind;
import dev.ironsieve.core.model.TermObject;
import dev.ironsieve.formats.icalendar.CalendarReader;
import dev.ironsieve.formats.icalendar.CalendarWriter;
import dev.ironsieve.server.account.Role;
import dev.ironsieve.server.http.Problem;
import jakarta.annotation.security.RolesAllowed;
import jakarta.ws.rs.Consumes;
import jakarta.ws.rs.GET;
import jakarta.ws.rs.POST;
import jakarta.ws.rs.Path;
import jakarta.ws.rs.Produces;
import java.nio.charset.StandardCharsets;
import java.util.List;
import org.eclipse.microprofile.openapi.annotations.media.Schema;

/** Schedules as calendars (iCalendar, RFC 5545). */
@Path("/api")
@RolesAllowed(Role.MAY_VIEW)
public class ScheduleResource {
  private static final String CALENDAR = "text/calendar";

  private final Drafts drafts;

  ScheduleResource(Drafts drafts) {
    this.drafts = drafts;
  }

  /**
   * What a calendar says, as a schedule says it.
   *
   * @param notes what was understood in a certain way
   */
  public record ReadCalendar(
      @Schema(required = true) List<String> members, @Schema(required = true) List<String> notes) {}

  /** Reads a calendar; nothing is changed. */
  @POST
  @Path("/schedules/read")
  @Consumes({CALENDAR, "text/plain", "application/octet-stream"})
  @RolesAllowed(Role.MAY_EDIT)
  public ReadCalendar read(byte[] calendar) {
    CalendarReader.Read read = CalendarReader.read(new String(calendar, StandardCharsets.UTF_8));
    return new ReadCalendar(read.members(), read.notes());
  }

  /** A schedule of the draft as a calendar. */
  @GET
  @Path("/rulebases/{rulebase}/draft/schedules/{name}")
  @Produces(CALENDAR + ";charset=UTF-8")
  public String write(long rulebase, String name) {
    TermObject schedule =
        drafts.rulebase(rulebase).termObjects(ObjectKind.SCHEDULE).stream()
            .filter(object -> Names.key(object.name()).equals(Names.key(name)))
            .findFirst()
            .orElseThrow(() -> Problem.of(404, "There is no schedule \"" + name + "\"."));
    return CalendarWriter.write(schedule);
  }
}
