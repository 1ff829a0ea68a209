package dev.ironsieve.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.hamcrest.Matchers.contains;
import static org.hamcrest.Matchers.containsString;
import static org.hamcrest.Matchers.empty;

import io.quarkus.test.junit.QuarkusTest;
import io.restassured.path.json.JsonPath;
import io.restassured.response.Response;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestInfo;

/** Four eyes: one person asks for a publish, another approves exactly that. */
@QuarkusTest
class ApprovalTest {
  private static final String B_ABOVE_A =
      "{\"kind\": \"moveRules\", \"ids\": [\"b\"], \"place\": {\"above\": \"a\"}}";

  private Client odile;
  private Client ruth;
  private Client tomas;
  private long id;

  @BeforeEach
  void aRulebaseThatNeedsApprovals(TestInfo test) {
    odile = Client.signedIn("odile.marsh");
    ruth = Client.signedIn("ruth.okell");
    tomas = Client.signedIn("tomas.wren");
    id = ruth.rulebase("Approvals of " + test.getDisplayName());
    put(odile, "/publishing", "{\"fourEyes\": true}").then().statusCode(204);
  }

  private Response put(Client client, String path, String body) {
    return client.request().body(body).put("/api/rulebases/" + id + path);
  }

  private JsonPath publishing() {
    return ruth.request().get("/api/rulebases/" + id + "/publishing").jsonPath();
  }

  private Response ask(Client client, long version) {
    return put(
        client,
        "/draft/approval",
        "{\"version\": %d, \"note\": \"B before A\"}".formatted(version));
  }

  private Response approve(Client client, long version, String digest) {
    return client
        .request()
        .body("{\"version\": %d, \"digest\": \"%s\"}".formatted(version, digest))
        .post("/api/rulebases/" + id + "/draft/approval");
  }

  @Test
  void onePersonAsksAndAnotherApproves() {
    tomas.edit(id, 0, B_ABOVE_A).then().statusCode(200);
    ruth.request()
        .body("{\"version\": 1}")
        .post("/api/rulebases/" + id + "/revisions")
        .then()
        .statusCode(409)
        .body("detail", containsString("Another person has to approve"));
    ask(tomas, 1).then().statusCode(204);
    JsonPath publishing = publishing();
    assertThat(publishing.getBoolean("fourEyes")).isTrue();
    assertThat(publishing.getString("request.by")).isEqualTo("tomas.wren");
    assertThat(publishing.getString("request.note")).isEqualTo("B before A");
    String digest = publishing.getString("request.digest");
    approve(tomas, 1, digest).then().statusCode(403);
    approve(ruth, 1, "00").then().statusCode(409);
    JsonPath revision = approve(ruth, 1, digest).then().statusCode(200).extract().jsonPath();
    assertThat(revision.getInt("number")).isEqualTo(2);
    assertThat(revision.getString("digest")).isEqualTo(digest);
    assertThat(revision.getString("by")).isEqualTo("Tomas Wren");
    assertThat(revision.getString("approvedBy")).isEqualTo("Ruth Okell");
    assertThat(publishing().getMap("request")).isNull();
    approve(odile, 1, digest).then().statusCode(409);
  }

  @Test
  void nobodyApprovesTheirOwnRequest() {
    ruth.edit(id, 0, B_ABOVE_A).then().statusCode(200);
    ask(ruth, 1).then().statusCode(204);
    String digest = publishing().getString("request.digest");
    approve(ruth, 1, digest)
        .then()
        .statusCode(403)
        .body("detail", containsString("Another person"));
    approve(odile, 1, digest).then().statusCode(200);
  }

  @Test
  void anyChangeOfTheDraftVoidsTheRequest() {
    tomas.edit(id, 0, B_ABOVE_A).then().statusCode(200);
    ask(tomas, 0).then().statusCode(409);
    ask(tomas, 1).then().statusCode(204);
    String digest = publishing().getString("request.digest");
    tomas.edit(id, 1, "{\"kind\": \"deleteRules\", \"ids\": [\"c\"]}").then().statusCode(200);
    assertThat(publishing().getMap("request")).isNull();
    approve(ruth, 1, digest).then().statusCode(409);
    approve(ruth, 2, digest).then().statusCode(409);
    ask(tomas, 2).then().statusCode(204);
    approve(ruth, 2, digest).then().statusCode(409);
    tomas.request().delete("/api/rulebases/" + id + "/draft/approval").then().statusCode(204);
    tomas.request().delete("/api/rulebases/" + id + "/draft/approval").then().statusCode(404);
    assertThat(
            odile
                .request()
                .queryParam("action", "request withdrawn")
                .queryParam("limit", 1)
                .get("/api/audit")
                .jsonPath()
                .getString("[0].who"))
        .isEqualTo("tomas.wren");
  }

  @Test
  void onlyAnAdminRequiresApprovalsAndItIsRecorded() {
    put(ruth, "/publishing", "{\"fourEyes\": false}").then().statusCode(403);
    put(odile, "/publishing", "{}").then().statusCode(422);
    put(odile, "/publishing", "{\"fourEyes\": false}").then().statusCode(204);
    tomas.edit(id, 0, B_ABOVE_A).then().statusCode(200);
    ruth.request()
        .body("{\"version\": 1}")
        .post("/api/rulebases/" + id + "/revisions")
        .then()
        .statusCode(200);
    assertThat(
            odile
                .request()
                .queryParam("text", "a publish needs")
                .queryParam("limit", 1)
                .get("/api/audit")
                .jsonPath()
                .getList("action", String.class))
        .containsExactly("setting changed");
  }

  @Test
  void commentsOnRulesStayWithTheRevision() {
    tomas.edit(id, 0, B_ABOVE_A).then().statusCode(200);
    String comments = "/api/rulebases/" + id + "/draft/comments";
    ruth.request()
        .body("{\"rule\": \"b\", \"text\": \" Why above A? \"}")
        .post(comments)
        .then()
        .statusCode(204);
    tomas
        .request()
        .body("{\"rule\": \"b\", \"text\": \"The shops ask for it.\"}")
        .post(comments)
        .then()
        .statusCode(204);
    ruth.request().body("{\"rule\": \"b\", \"text\": \" \"}").post(comments).then().statusCode(422);
    ruth.request()
        .get(comments)
        .then()
        .body("text", contains("Why above A?", "The shops ask for it."))
        .body("byName", contains("Ruth Okell", "Tomas Wren"));
    int first = ruth.request().get(comments).jsonPath().getInt("[0].id");
    tomas.request().delete(comments + "/" + first).then().statusCode(404); // it is hers
    ask(tomas, 1).then().statusCode(204);
    approve(ruth, 1, publishing().getString("request.digest")).then().statusCode(200);
    ruth.request().get(comments).then().body("", empty());
    ruth.request()
        .get("/api/rulebases/" + id + "/revisions/2/comments")
        .then()
        .body("rule", contains("b", "b"));
    ruth.request().delete(comments + "/" + first).then().statusCode(404);
  }
}
