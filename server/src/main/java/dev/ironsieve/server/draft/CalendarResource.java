package dev.ironsieve.server.draft;

import dev.ironsieve.formats.icalendar.CalendarReader;
import dev.ironsieve.server.account.Role;
import jakarta.annotation.security.RolesAllowed;
import jakarta.ws.rs.Consumes;
import jakarta.ws.rs.POST;
import jakarta.ws.rs.Path;
import jakarta.ws.rs.core.MediaType;
import java.nio.charset.StandardCharsets;
import java.util.List;
import org.eclipse.microprofile.openapi.annotations.media.Schema;

/** Calendars (iCalendar, RFC 5545) as schedules say them. */
@Path("/api/schedules/read")
public class CalendarResource {
  /**
   * What a calendar says, as a schedule says it.
   *
   * @param notes what was understood in a certain way
   */
  public record ReadCalendar(
      @Schema(required = true) List<String> members, @Schema(required = true) List<String> notes) {}

  /** Reads a calendar; nothing is changed. */
  @POST
  @Consumes(MediaType.WILDCARD)
  @RolesAllowed(Role.MAY_EDIT)
  public ReadCalendar read(byte[] calendar) {
    CalendarReader.Read read = CalendarReader.read(new String(calendar, StandardCharsets.UTF_8));
    return new ReadCalendar(read.members(), read.notes());
  }
}
