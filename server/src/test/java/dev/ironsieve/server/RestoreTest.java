package dev.ironsieve.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.hamcrest.Matchers.contains;
import static org.hamcrest.Matchers.containsString;
import static org.hamcrest.Matchers.empty;
import static org.hamcrest.Matchers.equalTo;
import static org.hamcrest.Matchers.nullValue;

import io.quarkus.test.junit.QuarkusTest;
import io.restassured.response.Response;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestInfo;

/** The way of a draft back to revisions and named states. */
@QuarkusTest
class RestoreTest {
  private static final String B_ABOVE_A =
      "{\"kind\": \"moveRules\", \"ids\": [\"b\"], \"place\": {\"above\": \"a\"}}";
  private static final String NO_C = "{\"kind\": \"deleteRules\", \"ids\": [\"c\"]}";
  private static final String DEPOT =
      "{\"kind\": \"putAddress\", \"object\": {\"name\": \"Depot\", \"members\": [\"10.9.0.0/16\"]}}";
  private static final String A_FROM_DEPOT =
      """
      {"kind": "replaceRules", "rules": [{"id": "a", "name": "A", "verdict": "drop",
        "fromAddresses": {"items": ["Depot"]}}]}""";

  private Client ruth;
  private Client tomas;
  private long id;

  @BeforeEach
  void freshRulebase(TestInfo test) {
    ruth = Client.signedIn("ruth.okell");
    tomas = Client.signedIn("tomas.wren");
    id = ruth.rulebase("Restores of " + test.getDisplayName());
  }

  private Response restore(Client client, String body) {
    return client.request().body(body).post("/api/rulebases/" + id + "/draft/restore");
  }

  private String states() {
    return "/api/rulebases/" + id + "/draft/states";
  }

  private String document() {
    return ruth.request().get("/api/rulebases/" + id + "/draft/document").asString();
  }

  @Test
  void aRevisionComesBackAsOneChangeThatCanBeUndone() {
    String first = document();
    ruth.edit(id, 0, DEPOT).then().statusCode(200);
    ruth.edit(id, 1, A_FROM_DEPOT).then().statusCode(200);
    ruth.edit(id, 2, B_ABOVE_A).then().statusCode(200);
    ruth.request()
        .body("{\"version\": 3, \"overrideReason\": \"a test\"}")
        .post("/api/rulebases/" + id + "/revisions")
        .then()
        .statusCode(200)
        .body("number", equalTo(2));
    String second = document();
    long version = ruth.draft(id).jsonPath().getLong("version");
    restore(tomas, "{\"version\": %d, \"revision\": 1}".formatted(version)).then().statusCode(204);
    assertThat(document()).isEqualTo(first);
    assertThat(ruth.draft(id).jsonPath().getInt("changes")).isEqualTo(1);
    ruth.request()
        .get("/api/rulebases/" + id + "/draft/changes?limit=1")
        .then()
        .body("[0].edit.kind", equalTo("restore"))
        .body("[0].edit.name", equalTo("revision 1"))
        .body("[0].edit.rulebase", nullValue())
        .body("[0].by", equalTo("Tomas Wren"));
    tomas.post(id, "undo").then().statusCode(200).body("standings", nullValue());
    assertThat(document()).isEqualTo(second);
    tomas.post(id, "redo").then().statusCode(200);
    assertThat(document()).isEqualTo(first);
    ruth.request()
        .get("/api/rulebases/" + id + "/draft/review")
        .then()
        .body("verdicts[0].connections.afterRule", equalTo("a"));
  }

  @Test
  void aNamedStateIsKeptAndComesBack() {
    ruth.edit(id, 0, B_ABOVE_A).then().statusCode(200);
    String wanted = document();
    ruth.request()
        .body("{\"name\": \"Before the clean-up\", \"version\": 1}")
        .post(states())
        .then()
        .statusCode(204);
    ruth.edit(id, 1, NO_C).then().statusCode(200);
    tomas
        .request()
        .get(states())
        .then()
        .body("name", contains("Before the clean-up"))
        .body("version", contains(1))
        .body("revision", contains(1))
        .body("by", contains("Ruth Okell"));
    restore(tomas, "{\"version\": 2, \"state\": \"before the clean-up\"}").then().statusCode(204);
    assertThat(document()).isEqualTo(wanted);
    restore(tomas, "{\"version\": 3, \"state\": \"Before the clean-up\"}")
        .then()
        .statusCode(409)
        .body("detail", containsString("equal"));
    tomas.request().delete(states() + "/Before the clean-up").then().statusCode(204);
    tomas.request().get(states()).then().body("", empty());
    tomas.request().delete(states() + "/Before the clean-up").then().statusCode(404);
  }

  @Test
  void someRulesGoBackAndTheOthersStay() {
    ruth.edit(id, 0, B_ABOVE_A).then().statusCode(200);
    ruth.edit(id, 1, NO_C).then().statusCode(200);
    restore(ruth, "{\"version\": 2, \"revision\": 1, \"rules\": [\"c\"]}").then().statusCode(204);
    assertThat(ruth.order(id)).isEqualTo("bac");
    restore(ruth, "{\"version\": 3, \"revision\": 1, \"rules\": [\"b\"]}").then().statusCode(204);
    assertThat(ruth.order(id)).isEqualTo("abc");
    ruth.post(id, "undo").then().statusCode(200);
    assertThat(ruth.order(id)).isEqualTo("bac");
    restore(ruth, "{\"version\": 5, \"revision\": 1, \"rules\": [\"z\"]}")
        .then()
        .statusCode(409)
        .body("detail", containsString("z"));
  }

  @Test
  void aRuleWhoseObjectIsGoneCannotGoBackAlone() {
    ruth.edit(id, 0, DEPOT).then().statusCode(200);
    ruth.edit(id, 1, A_FROM_DEPOT).then().statusCode(200);
    ruth.request()
        .body("{\"name\": \"With depot\", \"version\": 2}")
        .post(states())
        .then()
        .statusCode(204);
    restore(ruth, "{\"version\": 2, \"revision\": 1}").then().statusCode(204);
    restore(ruth, "{\"version\": 3, \"state\": \"With depot\", \"rules\": [\"a\"]}")
        .then()
        .statusCode(422)
        .body("detail", containsString("Depot"));
    restore(ruth, "{\"version\": 3, \"state\": \"With depot\"}").then().statusCode(204);
    assertThat(document()).contains("Depot");
  }

  @Test
  void whatIsWrongIsRefused() {
    ruth.edit(id, 0, B_ABOVE_A).then().statusCode(200);
    restore(ruth, "{\"version\": 1}").then().statusCode(422);
    restore(ruth, "{\"version\": 1, \"revision\": 1, \"state\": \"x\"}").then().statusCode(422);
    restore(ruth, "{\"version\": 1, \"revision\": 1, \"rules\": [null]}").then().statusCode(422);
    restore(ruth, "{\"version\": 1, \"revision\": 1, \"rules\": []}").then().statusCode(422);
    restore(ruth, "{\"version\": 1, \"state\": \"\\u0000\"}").then().statusCode(422);
    restore(ruth, "{\"revision\": 1}").then().statusCode(422);
    restore(ruth, "{\"version\": 1, \"revision\": 9}").then().statusCode(404);
    restore(ruth, "{\"version\": 1, \"state\": \"x\"}").then().statusCode(404);
    restore(Client.signedIn("ines.calder"), "{\"version\": 1, \"revision\": 1}")
        .then()
        .statusCode(403);
    restore(tomas, "{\"version\": 0, \"revision\": 1}")
        .then()
        .statusCode(409)
        .body("conflict.by", equalTo("Ruth Okell"));
    ruth.edit(
            id,
            1,
            "{\"kind\": \"restore\", \"name\": \"x\", \"rulebase\": {\"ironSieve\": 1, \"name\": \"y\"}}")
        .then()
        .statusCode(422);
    String name = "{\"name\": \"%s\", \"version\": %d}";
    ruth.request().body(name.formatted("", 1)).post(states()).then().statusCode(422);
    ruth.request().body(name.formatted("s", 0)).post(states()).then().statusCode(409);
    ruth.request().body(name.formatted("s", 1)).post(states()).then().statusCode(204);
    ruth.request().body(name.formatted("S", 1)).post(states()).then().statusCode(409);
  }
}
