package dev.ironsieve.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.hamcrest.Matchers.contains;
import static org.hamcrest.Matchers.containsString;
import static org.hamcrest.Matchers.greaterThan;
import static org.hamcrest.Matchers.is;
import static org.hamcrest.Matchers.lessThan;

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
        .body("[0].name", is("Night ferry"))
        .body("[0].members", contains("mon,fri 22:00-04:00"));
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
    String all =
        editor
            .request()
            .get("/api/rulebases/1/draft/schedules")
            .then()
            .statusCode(200)
            .contentType("text/calendar;charset=UTF-8")
            .extract()
            .asString();
    assertThat(all).contains("SUMMARY:noon break", "DTSTART;TZID=Europe/Oslo:20240101T070000");
    editor
        .request()
        .contentType("text/calendar")
        .body(all)
        .post("/api/schedules/read")
        .then()
        .statusCode(200)
        .body("name", contains("noon break", "Yard hours abroad", "Regatta week"))
        .body("[1].members", contains("mon,tue,wed,thu,fri 07:00-16:00 in Europe/Oslo"));
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

  @Test
  void floorsAddUpAndPlansAndNoticesAreEditedLikeObjects() {
    Client editor = Client.signedIn("ruth.okell");
    editor
        .request()
        .get("/api/rulebases/1/draft/objects/floors")
        .then()
        .statusCode(200)
        .body("plans.plan", contains("Calls first", "Telemetry", "Backups"))
        .body("plans.times", contains(120, 1, 2))
        .body("total", is("53520 kbit/s"))
        .body("lineCapacity", is("50 Mbit/s"))
        .body("share", greaterThan(1f));
    String tried =
        "{\"replaces\": \"Calls first\", \"ratePlan\": {\"name\": \"Calls first\", \"floor\":"
            + " \"%s\", \"counted\": \"each source\", \"mostAtOnce\": 10}}";
    editor
        .request()
        .body(tried.formatted("96 kbit/s"))
        .post("/api/rulebases/1/draft/objects/floors")
        .then()
        .statusCode(200)
        .body("plans.times", contains(10, 1, 2))
        .body("total", is("42960 kbit/s"))
        .body("share", lessThan(1f));
    editor
        .request()
        .body(tried.formatted("96 kb"))
        .post("/api/rulebases/1/draft/objects/floors")
        .then()
        .statusCode(422)
        .body("faults[0].path", is("$.ratePlan.floor"));
    long rulebase = editor.rulebase("plans");
    String plan =
        "{\"kind\": \"putRatePlan\", \"ratePlan\": {\"name\": \"p\", \"counted\": \"%s\","
            + " \"floor\": \"%s\"}}";
    editor.edit(rulebase, 0, plan.formatted("each rule", "1 Mbit/s")).then().statusCode(200);
    editor
        .edit(rulebase, 1, plan.formatted("each rule", "1 Mb"))
        .then()
        .statusCode(422)
        .body("faults[0].path", is("$.edit.ratePlan.floor"));
    editor
        .edit(rulebase, 1, plan.formatted("each source", "1 Mbit/s"))
        .then()
        .statusCode(422)
        .body("faults[0].expected", containsString("how many source addresses at once"));
    editor
        .edit(
            rulebase,
            1,
            "{\"kind\": \"putNotice\", \"notice\": {\"name\": \"n\", \"heading\": \"h\","
                + " \"text\": \"t\"}}")
        .then()
        .statusCode(200);
    editor
        .edit(rulebase, 2, "{\"kind\": \"setLineCapacity\", \"capacity\": \"1 Gbit/s\"}")
        .then()
        .statusCode(200);
    Forgetting.drafts();
    editor
        .draft(rulebase)
        .then()
        .body("ratePlans.name", contains("p"))
        .body("notices.name", contains("n"))
        .body("lineCapacity", is("1 Gbit/s"));
    editor.post(rulebase, "undo").then().statusCode(200);
    editor
        .request()
        .get("/api/rulebases/" + rulebase + "/draft/objects/rate plan/p/removal")
        .then()
        .statusCode(200)
        .body("rules.size()", is(0));
  }

  @Test
  void deviceStatesAndTheClockAreEditedLikeObjects() {
    Client editor = Client.signedIn("ruth.okell");
    long rulebase = editor.rulebase("devices");
    String state =
        "{\"kind\": \"putDeviceState\", \"object\": {\"name\": \"fit\", \"members\": [\"%s\"]}}";
    editor.edit(rulebase, 0, state.formatted("managed, has disk-lock")).then().statusCode(200);
    editor
        .edit(rulebase, 1, state.replace("fit", "odd").formatted("shiny"))
        .then()
        .statusCode(422)
        .body("faults[0].path", is("$.edit.object.members[0]"))
        .body("faults[0].expected", containsString("platform kelpos"));
    String rule =
        "{\"kind\": \"insertRules\", \"place\": {\"above\": \"a\"}, \"rules\": [{\"id\": \"r1\","
            + " \"name\": \"r\", \"verdict\": \"allow\", \"terms\": {\"device\": {\"items\":"
            + " [\"fit\"]}, \"file kind\": {\"items\": [\"documents\"]}}}]}";
    editor.edit(rulebase, 1, rule).then().statusCode(200);
    editor
        .edit(rulebase, 2, "{\"kind\": \"setTimeZone\", \"name\": \"europe/oslo\"}")
        .then()
        .statusCode(200);
    editor
        .edit(rulebase, 3, "{\"kind\": \"setTimeZone\", \"name\": \"Harbour\"}")
        .then()
        .statusCode(422)
        .body("faults[0].path", is("$.edit.name"));
    Forgetting.drafts();
    editor
        .draft(rulebase)
        .then()
        .body("deviceStates.name", contains("fit"))
        .body("timeZone", is("Europe/Oslo"));
    editor
        .request()
        .get("/api/rulebases/" + rulebase + "/draft/terms?of=file kind&text=docu")
        .then()
        .statusCode(200)
        .body("[0].name", is("documents"))
        .body("[0].members", greaterThan(5));
    String probe = "/api/rulebases/" + rulebase + "/draft/probe";
    for (String[] asked : new String[][] {{"PDF", "r1"}, {"PNG picture", "a"}}) {
      editor
          .request()
          .body(
              "{\"line\": \"tcp/443 device managed, has disk-lock, has a-name file kind "
                  + asked[0]
                  + " time 2026-07-01T10:00Z\"}")
          .post(probe)
          .then()
          .statusCode(200)
          .body("rule", is(asked[1]))
          .body("line", containsString("time 2026-07-01T12:00"));
    }
  }

  @Test
  void checksAreSavedAndTriedAfterEveryChange() {
    Client editor = Client.signedIn("ruth.okell");
    long rulebase = editor.rulebase("checks");
    String check =
        "{\"kind\": \"putCheck\", \"check\": {\"name\": \"%s\", \"connection\": \"%s\","
            + " \"verdict\": \"allow\"%s}}";
    editor
        .edit(rulebase, 0, check.formatted("udp", "in inside   udp/53", ""))
        .then()
        .statusCode(422)
        .body("faults[0].path", is("check \"udp\": connection, character 1"))
        .body("faults[0].expected", containsString("a service"));
    editor
        .edit(rulebase, 0, check.formatted("names", "from in inside   udp/53", ""))
        .then()
        .statusCode(200);
    editor
        .edit(rulebase, 1, check.formatted("web", "tcp/443", ", \"rule\": \"b\""))
        .then()
        .statusCode(200);
    Forgetting.drafts();
    editor
        .draft(rulebase)
        .then()
        .body("checks.name", contains("names", "web"))
        .body("checks[0].connection", is("from in inside udp/53"));
    String states = "/api/rulebases/" + rulebase + "/draft/checks";
    editor
        .request()
        .get(states)
        .then()
        .statusCode(200)
        .body("holds", contains(true, false))
        .body("verdict", contains("allow", "drop"))
        .body("rule", contains("c", "a"));
    editor
        .edit(rulebase, 2, "{\"kind\": \"deleteRules\", \"ids\": [\"a\"]}")
        .then()
        .statusCode(200);
    editor.request().get(states).then().body("holds", contains(true, true));
    editor
        .edit(rulebase, 3, "{\"kind\": \"deleteCheck\", \"name\": \"Names\"}")
        .then()
        .statusCode(200);
    editor.request().get(states).then().body("name", contains("web"));
    editor.post(rulebase, "undo").then().statusCode(200);
    editor.request().get(states).then().body("holds", contains(true, true));
    Client.signedIn("ines.calder").request().get(states).then().statusCode(200);
  }

  @Test
  void repairsComeWithTheirEffect() {
    Client editor = Client.signedIn("ruth.okell");
    long rulebase = editor.rulebase("repairs"); // b, tcp/443, is shadowed by a, tcp
    String repairs = "/api/rulebases/" + rulebase + "/draft/rules/%s/repairs/shadowed";
    editor
        .request()
        .get(repairs.formatted("b"))
        .then()
        .statusCode(200)
        .body("summary", contains("Delete \"B\"", "Move \"B\" above \"A\""))
        .body("[0].verdicts.size()", is(0))
        .body("[0].complete", is(true))
        .body("[1].verdicts[0].before", is("drop"))
        .body("[1].verdicts[0].after", is("allow"))
        .body("[1].edit.kind", is("moveRules"));
    editor.request().get(repairs.formatted("a")).then().statusCode(200).body("size()", is(0));
    editor.request().get(repairs.formatted("none")).then().statusCode(404);
  }
}
