package dev.ironsieve.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.hamcrest.Matchers.contains;
import static org.hamcrest.Matchers.containsString;
import static org.hamcrest.Matchers.greaterThan;
import static org.hamcrest.Matchers.is;

import io.quarkus.test.junit.QuarkusTest;
import org.junit.jupiter.api.Test;

/** Schedules and calendars, and edits that bring hosts and times. */
@QuarkusTest
class ScheduleTest {
  private static final String CALENDAR =
      """
      BEGIN:VCALENDAR
      VERSION:2.0
      PRODID:-//x//EN
      BEGIN:VEVENT
      UID:1
      DTSTAMP:20260101T000000Z
      SUMMARY:Night ferry
      DTSTART:20261130T220000
      DTEND:20261201T040000
      RRULE:FREQ=%s;BYDAY=MO,FR
      END:VEVENT
      END:VCALENDAR
      """;

  @Test
  void aCalendarIsReadAndAScheduleWrittenAsOne() {
    Client editor = Client.signedIn("ruth.okell");
    editor
        .request()
        .contentType("text/calendar")
        .body(CALENDAR.formatted("WEEKLY"))
        .post("/api/schedules/read")
        .then()
        .statusCode(200)
        .body("members", contains("mon,fri 22:00-04:00"));
    editor
        .request()
        .contentType("text/calendar")
        .body(CALENDAR.formatted("YEARLY"))
        .post("/api/schedules/read")
        .then()
        .statusCode(422)
        .body("faults[0].path", containsString("event 1 \"Night ferry\", RRULE"));
    String written =
        editor
            .request()
            .get("/api/rulebases/1/draft/schedules/Noon break")
            .then()
            .statusCode(200)
            .contentType("text/calendar;charset=UTF-8")
            .extract()
            .asString();
    assertThat(written).contains("BEGIN:VEVENT", "DTSTART:20240101T120000", "BYDAY=MO,TU");
    editor.request().get("/api/rulebases/1/draft/schedules/Never").then().statusCode(404);
  }

  @Test
  void takingAnObjectAwayTellsWhatItChangesFirst() {
    Client editor = Client.signedIn("ruth.okell");
    String objects = "/api/rulebases/1/draft/objects/";
    editor
        .request()
        .get(objects + "alike")
        .then()
        .statusCode(200)
        .body("kind", contains("address"));
    editor
        .request()
        .get(objects + "address/Kiosks/removal")
        .then()
        .statusCode(200)
        .body("complete", is(true))
        .body("rules.before.id", contains("h09", "h12", "h25"))
        .body("rules[0].after.enabled", is(false))
        .body("verdicts.size()", greaterThan(0));
    editor.request().get(objects + "address/Nobody/removal").then().statusCode(409);
    editor.request().get(objects + "colour/red/removal").then().statusCode(422);
    editor.request().delete(objects + "address/Kiosks").then().statusCode(422);
  }
}
