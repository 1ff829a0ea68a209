package dev.ironsieve.server;

import static org.assertj.core.api.Assertions.assertThat;

import io.quarkus.test.junit.QuarkusTest;
import io.restassured.path.json.JsonPath;
import io.restassured.response.Response;
import java.time.Duration;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.function.BooleanSupplier;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestInfo;

/** Publishes that wait for their time. */
@QuarkusTest
class ScheduledPublishTest {
  private static final String B_ABOVE_A =
      "{\"kind\": \"moveRules\", \"ids\": [\"b\"], \"place\": {\"above\": \"a\"}}";
  private static final String NO_C = "{\"kind\": \"deleteRules\", \"ids\": [\"c\"]}";
  private static final Duration PATIENCE = Duration.ofMinutes(3);

  private Client ruth;
  private Client tomas;
  private long id;

  @BeforeEach
  void aDraftWithAChange(TestInfo test) {
    ruth = Client.signedIn("ruth.okell");
    tomas = Client.signedIn("tomas.wren");
    id = ruth.rulebase("Later: " + test.getDisplayName());
    tomas.edit(id, 0, B_ABOVE_A).then().statusCode(200);
  }

  private Response schedule(Client client, long version, Object due) {
    return client
        .request()
        .body("{\"version\": %d, \"due\": \"%s\", \"note\": \"At night\"}".formatted(version, due))
        .put("/api/rulebases/" + id + "/draft/scheduled");
  }

  private Response cancel(Client client) {
    return client.request().delete("/api/rulebases/" + id + "/draft/scheduled");
  }

  private JsonPath publishing() {
    return tomas.request().get("/api/rulebases/" + id + "/publishing").jsonPath();
  }

  private JsonPath revisions() {
    return tomas.request().get("/api/rulebases/" + id + "/revisions").jsonPath();
  }

  private static void await(BooleanSupplier condition) throws InterruptedException {
    Instant end = Instant.now().plus(PATIENCE);
    while (!condition.getAsBoolean()) {
      assertThat(Instant.now()).as("in time").isBefore(end);
      Thread.sleep(100);
    }
  }

  @Test
  void aDraftIsPublishedAtItsTime() throws Exception {
    Instant due = Instant.now().plusSeconds(3).truncatedTo(ChronoUnit.MILLIS);
    schedule(ruth, 1, due).then().statusCode(204);
    assertThat(publishing().getString("scheduled.byName")).isEqualTo("Ruth Okell");
    assertThat(publishing().getString("scheduled.note")).isEqualTo("At night");
    assertThat(publishing().getString("scheduled.due")).isEqualTo(due.toString());
    await(() -> revisions().getList("number").size() == 2);
    assertThat(Instant.now()).isAfter(due);
    assertThat(revisions().getString("[0].by")).isEqualTo("Ruth Okell");
    assertThat(revisions().getString("[0].note")).isEqualTo("At night");
    assertThat(publishing().getString("scheduled")).isNull();
    assertThat(ruth.draft(id).jsonPath().getInt("revision")).isEqualTo(2);
  }

  @Test
  void aDraftThatWasChangedIsNotPublished() throws Exception {
    schedule(ruth, 1, Instant.now().plusSeconds(2)).then().statusCode(204);
    tomas.edit(id, 1, NO_C).then().statusCode(200);
    assertThat(publishing().getString("scheduled.failed")).contains("changed");
    Client odile = Client.signedIn("odile.marsh");
    await(
        () ->
            odile
                .request()
                .queryParam("action", "scheduled publish failed")
                .queryParam("text", "aDraftThatWasChanged")
                .get("/api/audit")
                .jsonPath()
                .getList("subject")
                .contains("Later: aDraftThatWasChangedIsNotPublished()"));
    assertThat(revisions().getList("number")).hasSize(1);
    assertThat(publishing().getString("scheduled.failed")).contains("changed after the review");
    cancel(ruth).then().statusCode(204);
    assertThat(publishing().getString("scheduled")).isNull();
  }

  @Test
  void whoMayNoLongerPublishDoesNotPublishLater() throws Exception {
    Client odile = Client.signedIn("odile.marsh");
    String name = "p" + System.nanoTime();
    odile
        .request()
        .body(
            """
            {"name": "%s", "displayName": "Passing", "role": "publisher",
             "password": "brindlemere-demo"}"""
                .formatted(name))
        .post("/api/accounts")
        .then()
        .statusCode(200);
    schedule(Client.signedIn(name), 1, Instant.now().plusSeconds(2)).then().statusCode(204);
    odile
        .request()
        .body("{\"role\": \"editor\"}")
        .patch("/api/accounts/" + name)
        .then()
        .statusCode(200);
    await(() -> publishing().getString("scheduled.failed") != null);
    assertThat(publishing().getString("scheduled.failed"))
        .isEqualTo("Passing may no longer publish.");
    assertThat(revisions().getList("number")).hasSize(1);
  }

  @Test
  void aPublishIsCancelledOrHappensAtOnce() {
    schedule(ruth, 1, Instant.now().plusSeconds(3600)).then().statusCode(204);
    schedule(ruth, 1, Instant.now().plusSeconds(7200)).then().statusCode(204);
    cancel(tomas).then().statusCode(403);
    cancel(ruth).then().statusCode(204);
    cancel(ruth).then().statusCode(404);
    schedule(ruth, 1, Instant.now().plusSeconds(3600)).then().statusCode(204);
    ruth.request()
        .body("{\"version\": 1}")
        .post("/api/rulebases/" + id + "/revisions")
        .then()
        .statusCode(200);
    assertThat(publishing().getString("scheduled")).isNull();
  }

  @Test
  void whatIsWrongIsRefused() {
    Instant later = Instant.now().plusSeconds(3600);
    schedule(tomas, 1, later).then().statusCode(403);
    schedule(ruth, 0, later).then().statusCode(409);
    schedule(ruth, 1, Instant.now().minusSeconds(1)).then().statusCode(422);
    schedule(ruth, 1, Instant.now().plusSeconds(400L * 24 * 3600)).then().statusCode(422);
    schedule(ruth, 1, "tonight").then().statusCode(422);
    Client.signedIn("odile.marsh")
        .request()
        .body("{\"fourEyes\": true}")
        .put("/api/rulebases/" + id + "/publishing")
        .then()
        .statusCode(204);
    schedule(ruth, 1, later).then().statusCode(409);
  }
}
