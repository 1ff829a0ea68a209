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
   * What the events of a calendar with one summary say, as a schedule says it.
   *
   * @param name the summary; empty if there is none
   */
  public record ReadSchedule(
      @Schema(required = true) String name, @Schema(required = true) List<String> members) {}

  /** Reads a calendar as schedules; nothing is changed. */
  @POST
  @Consumes(MediaType.WILDCARD)
  @RolesAllowed(Role.MAY_EDIT)
  public List<ReadSchedule> read(byte[] calendar) {
    return CalendarReader.read(new String(calendar, StandardCharsets.UTF_8)).stream()
        .map(read -> new ReadSchedule(read.name(), read.members()))
        .toList();
  }
}
