package dev.ironsieve.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.hamcrest.Matchers.contains;
import static org.hamcrest.Matchers.containsString;
import static org.hamcrest.Matchers.equalTo;
import static org.hamcrest.Matchers.nullValue;

import io.quarkus.test.junit.QuarkusTest;
import io.restassured.path.json.JsonPath;
import io.restassured.response.Response;
import java.time.Duration;
import java.time.Instant;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestInfo;

/** A revision that some gateways follow before the others. */
@QuarkusTest
class RolloutTest {
  private static final Duration PATIENCE = Duration.ofMinutes(2);
  private static final String NO_C = "{\"kind\": \"deleteRules\", \"ids\": [\"c\"]}";

  private Client ruth;
  private long id;
  private Device north;
  private Device hub;

  /** A gateway as the server sees it. */
  private record Device(long id, String secret) {
    JsonPath desired() {
      return Client.anonymous()
          .header("Authorization", "Bearer " + secret)
          .get("/api/gateway/desired")
          .jsonPath();
    }

    void report(String state, JsonPath revision) {
      Client.anonymous()
          .header("Authorization", "Bearer " + secret)
          .body(
              "{\"revision\": %d, \"digest\": \"%s\", \"state\": \"%s\"}"
                  .formatted(revision.getInt("revision"), revision.getString("digest"), state))
          .post("/api/gateway/report")
          .then()
          .statusCode(204);
    }
  }

  @BeforeEach
  void aRulebaseWithTwoGateways(TestInfo test) {
    ruth = Client.signedIn("ruth.okell");
    String name = "Rollout of " + test.getDisplayName();
    id = ruth.rulebase(name);
    north = device(name + " north");
    hub = device(name + " hub");
  }

  private Device device(String name) {
    JsonPath added =
        Client.signedIn("odile.marsh")
            .request()
            .body("{\"name\": \"" + name + "\"}")
            .post("/api/rulebases/" + id + "/gateways")
            .jsonPath();
    String secret =
        Client.anonymous()
            .body("{\"token\": \"" + added.getString("token") + "\"}")
            .post("/api/gateway/enrol")
            .jsonPath()
            .getString("secret");
    return new Device(added.getLong("gateway"), secret);
  }

  private Response publish(String first) {
    ruth.edit(id, 0, NO_C).then().statusCode(200);
    return ruth.request()
        .body("{\"version\": 1, \"overrideReason\": \"a test\", \"first\": %s}".formatted(first))
        .post("/api/rulebases/" + id + "/revisions");
  }

  private void publishToNorthFirst() {
    publish("{\"gateways\": [%d], \"restAfterMinutes\": 30}".formatted(north.id()))
        .then()
        .statusCode(200);
  }

  private Response rollout() {
    return ruth.request().get("/api/rulebases/" + id + "/rollout");
  }

  private Response post(String action) {
    return ruth.request().post("/api/rulebases/" + id + "/rollout/" + action);
  }

  @Test
  void theFirstFollowAndTheOthersWait() {
    publishToNorthFirst();
    assertThat(north.desired().getInt("revision")).isEqualTo(2);
    assertThat(hub.desired().getInt("revision")).isEqualTo(1);
    rollout()
        .then()
        .body("revision", equalTo(2))
        .body("first[0]", containsString("north"))
        .body("stopped", nullValue());
    post("finish").then().statusCode(204);
    assertThat(hub.desired().getInt("revision")).isEqualTo(2);
    rollout().then().body("revision", equalTo(0));
    post("finish").then().statusCode(404);
  }

  @Test
  void aFailureOfTheFirstStopsIt() throws InterruptedException {
    publishToNorthFirst();
    north.report("refused", north.desired());
    Instant end = Instant.now().plus(PATIENCE);
    while (rollout().jsonPath().getString("stopped") == null) {
      assertThat(Instant.now()).as("stopped in time").isBefore(end);
      Thread.sleep(100);
    }
    rollout().then().body("stopped", containsString("north is refused"));
    assertThat(hub.desired().getInt("revision")).isEqualTo(1);
    assertThat(north.desired().getInt("revision")).isEqualTo(2);
    post("finish").then().statusCode(204); // in spite of it
    assertThat(hub.desired().getInt("revision")).isEqualTo(2);
  }

  @Test
  void theNextPublishIsForAllOrStartsAnew() {
    publishToNorthFirst();
    post("stop").then().statusCode(204);
    rollout().then().body("stopped", equalTo("It was stopped by hand."));
    ruth.edit(id, 1, "{\"kind\": \"deleteRules\", \"ids\": [\"b\"]}").then().statusCode(200);
    ruth.request()
        .body(
            "{\"version\": 2, \"overrideReason\": \"a test\", \"first\":"
                + " {\"gateways\": [%d], \"restAfterMinutes\": 5}}".formatted(hub.id()))
        .post("/api/rulebases/" + id + "/revisions")
        .then()
        .statusCode(200);
    assertThat(hub.desired().getInt("revision")).isEqualTo(3);
    assertThat(north.desired().getInt("revision")).isEqualTo(1); // what the others followed
    ruth.edit(id, 2, "{\"kind\": \"deleteRules\", \"ids\": [\"a\"]}").then().statusCode(200);
    ruth.request()
        .body("{\"version\": 3, \"overrideReason\": \"a test\"}")
        .post("/api/rulebases/" + id + "/revisions")
        .then()
        .statusCode(200);
    assertThat(north.desired().getInt("revision")).isEqualTo(4);
    rollout().then().body("revision", equalTo(0));
  }

  @Test
  void aWrongWishIsRefused() {
    publish("{\"gateways\": [], \"restAfterMinutes\": 30}").then().statusCode(422);
    String other = "{\"version\": 1, \"overrideReason\": \"x\", \"first\": %s}";
    for (String wrong :
        new String[] {
          "{\"gateways\": [999999], \"restAfterMinutes\": 30}",
          "{\"gateways\": [%d], \"restAfterMinutes\": 0}".formatted(north.id()),
          "{\"gateways\": [%d]}".formatted(north.id())
        }) {
      ruth.request()
          .body(other.formatted(wrong))
          .post("/api/rulebases/" + id + "/revisions")
          .then()
          .statusCode(422);
    }
    ruth.request().get("/api/rulebases/" + id + "/revisions").then().body("number", contains(1));
    post("stop").then().statusCode(404);
  }
}
