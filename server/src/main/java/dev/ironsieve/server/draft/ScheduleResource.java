package dev.ironsieve.server.draft;

import dev.ironsieve.core.model.Names;
import dev.ironsieve.core.model.ObjectKind;
import dev.ironsieve.core.model.TermObject;
import dev.ironsieve.formats.icalendar.CalendarWriter;
import dev.ironsieve.server.account.Role;
import dev.ironsieve.server.refusal.Refusal;
import jakarta.annotation.security.RolesAllowed;
import jakarta.ws.rs.GET;
import jakarta.ws.rs.Path;
import jakarta.ws.rs.Produces;
import java.util.List;

/** Schedules of a draft as a calendar (iCalendar, RFC 5545). */
@Path("/api/rulebases/{rulebase}/draft/schedules")
@RolesAllowed(Role.MAY_VIEW)
public class ScheduleResource {
  private static final String CALENDAR = "text/calendar;charset=UTF-8";

  private final Drafts drafts;

  ScheduleResource(Drafts drafts) {
    this.drafts = drafts;
  }

  /** All of them. */
  @GET
  @Produces(CALENDAR)
  public String all(long rulebase) {
    return CalendarWriter.write(drafts.rulebase(rulebase).termObjects(ObjectKind.SCHEDULE));
  }

  /** One of them. */
  @GET
  @Path("/{name}")
  @Produces(CALENDAR)
  public String one(long rulebase, String name) {
    TermObject schedule =
        drafts.rulebase(rulebase).termObjects(ObjectKind.SCHEDULE).stream()
            .filter(object -> Names.key(object.name()).equals(Names.key(name)))
            .findFirst()
            .orElseThrow(() -> new Refusal.NotFound("There is no schedule \"" + name + "\"."));
    return CalendarWriter.write(List.of(schedule));
  }
}
