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

/** Converts calendars (iCalendar, RFC 5545) to schedules. */
@Path("/api/schedules/read")
public class CalendarResource {

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
