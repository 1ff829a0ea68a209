package dev.ironsieve.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.hamcrest.Matchers.contains;
import static org.hamcrest.Matchers.containsString;
import static org.hamcrest.Matchers.empty;
import static org.hamcrest.Matchers.equalTo;
import static org.hamcrest.Matchers.hasItem;
import static org.hamcrest.Matchers.hasSize;
import static org.hamcrest.Matchers.matchesPattern;

import io.quarkus.test.junit.QuarkusTest;
import io.restassured.path.json.JsonPath;
import io.restassured.response.Response;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestInfo;

/** From a draft to a revision. */
@QuarkusTest
class RevisionTest {
  private static final String B_ABOVE_A =
      "{\"kind\": \"moveRules\", \"ids\": [\"b\"], \"place\": {\"above\": \"a\"}}";
  private static final String A_ABOVE_C =
      "{\"kind\": \"moveRules\", \"ids\": [\"a\"], \"place\": {\"below\": \"c\"}}";
  private static final String NARROW_BELOW_A =
      """
      {"kind": "insertRules", "place": {"below": "a"}, "rules": [{"id": "n", "name": "Narrow",
        "verdict": "allow", "services": {"items": ["tcp/22"]}}]}""";

  private Client ruth;
  private Client tomas;
  private long id;

  @BeforeEach
  void freshRulebase(TestInfo test) {
    ruth = Client.signedIn("ruth.okell");
    tomas = Client.signedIn("tomas.wren");
    id = ruth.rulebase("Revisions of " + test.getDisplayName());
  }

  private Response review() {
    return tomas.request().get("/api/rulebases/" + id + "/draft/review");
  }

  private Response publish(Client client, String body) {
    return client.request().body(body).post("/api/rulebases/" + id + "/revisions");
  }

  @Test
  void theReviewSaysWhatIsDifferentInMeaning() {
    tomas.edit(id, 0, B_ABOVE_A).then().statusCode(200);
    review()
        .then()
        .statusCode(200)
        .body("revision", equalTo(1))
        .body("version", equalTo(1))
        .body("verdicts", hasSize(2)) // one for each address family
        .body("verdicts[0].connections.before", equalTo("drop"))
        .body("verdicts[0].connections.beforeRule", equalTo("a"))
        .body("verdicts[0].connections.after", equalTo("allow"))
        .body("verdicts[0].connections.afterRule", equalTo("b"))
        .body("verdicts[0].connections.witness", containsString("tcp/443"))
        .body("complete", equalTo(true))
        .body("goneFindings.finding.kind", contains("shadowed", "mergeable"))
        .body("goneFindings.rule", contains("b", "b"))
        .body("text.sign.join('')", equalTo(" -+"))
        .body("text[0].text", equalTo("section \"S\""))
        .body("text[1].text", equalTo("  drop \"A\" service tcp"))
        .body("blockers", empty());
  }

  @Test
  void aRevisionIsReadWithItsFindings() {
    tomas.edit(id, 0, B_ABOVE_A).then().statusCode(200);
    tomas
        .request()
        .get("/api/rulebases/" + id + "/revisions/1/rules")
        .then()
        .statusCode(200)
        .body("revision", equalTo(1))
        .body("sections[0].rules.id", contains("a", "b", "c"))
        .body("standings.b.findings.kind", hasItem("shadowed"));
    tomas.request().get("/api/rulebases/" + id + "/revisions/2/rules").then().statusCode(404);
  }

  @Test
  void aPublisherMakesTheDraftTheNextRevision() {
    tomas.edit(id, 0, B_ABOVE_A).then().statusCode(200);
    publish(tomas, "{\"version\": 1}").then().statusCode(403);
    publish(ruth, "{\"version\": 1, \"note\": \"Shops need the web\"}")
        .then()
        .statusCode(200)
        .body("number", equalTo(2))
        .body("by", equalTo("Ruth Okell"))
        .body("note", equalTo("Shops need the web"))
        .body("digest", matchesPattern("[0-9a-f]{64}"));
    ruth.draft(id).then().body("revision", equalTo(2)).body("changes", equalTo(0));
    assertThat(ruth.order(id)).isEqualTo("bac");
    ruth.request()
        .get("/api/rulebases/" + id + "/revisions")
        .then()
        .body("number", contains(2, 1))
        .body("[0].overrideReason", equalTo(null));
    ruth.request()
        .get("/api/rulebases/" + id + "/revisions/1")
        .then()
        .body("sections[0].rules.id", contains("a", "b", "c"));
    ruth.request()
        .get("/api/rulebases/" + id + "/revisions/2/since/1")
        .then()
        .statusCode(200)
        .body("verdicts.connections.after", contains("allow", "allow"))
        .body("version", equalTo(null));
    tomas.post(id, "undo").then().statusCode(409);
    tomas.edit(id, 1, A_ABOVE_C).then().statusCode(200).body("version", equalTo(2));
    ruth.draft(id).then().body("changes", equalTo(1));
  }

  @Test
  void aBlockerStopsAPublishUnlessAReasonOverridesIt() {
    String check =
        "{\"kind\": \"putCheck\", \"check\": {\"name\": \"Web\", \"connection\": \"tcp/443\","
            + " \"verdict\": \"allow\"}}";
    tomas.edit(id, 0, check).then().statusCode(200);
    tomas.edit(id, 1, NARROW_BELOW_A).then().statusCode(200);
    review()
        .then()
        .body("blockers.kind", contains("check", "finding"))
        .body("blockers[0].text", equalTo("The check \"Web\" fails."))
        .body("blockers[1].text", equalTo("\"Narrow\" is shadowed."))
        .body("blockers[1].rule", equalTo("n"));
    publish(ruth, "{\"version\": 2}")
        .then()
        .statusCode(409)
        .body("detail", containsString("2 blockers stop the publish"));
    publish(ruth, "{\"version\": 2, \"overrideReason\": \" \"}").then().statusCode(409);
    ruth.draft(id).then().body("revision", equalTo(1)).body("changes", equalTo(2));
    publish(ruth, "{\"version\": 2, \"overrideReason\": \"The harbour master knows\"}")
        .then()
        .statusCode(200)
        .body("overrideReason", equalTo("The harbour master knows"));
  }

  @Test
  void onlyWhatWasReviewedIsPublished() {
    publish(ruth, "{\"version\": 0}")
        .then()
        .statusCode(409)
        .body("detail", equalTo("The draft has no changes to publish."));
    tomas.edit(id, 0, B_ABOVE_A).then().statusCode(200);
    publish(ruth, "{\"version\": 0}")
        .then()
        .statusCode(409)
        .body("detail", containsString("changed after the review"));
    publish(ruth, "{}").then().statusCode(422);
    publish(ruth, "{\"version\": 1, \"note\": \"" + "x".repeat(2001) + "\"}")
        .then()
        .statusCode(422);
    ruth.draft(id).then().body("revision", equalTo(1));
  }

  @Test
  void otherZonesCannotBeComparedAndOtherEditionsCan() {
    tomas
        .edit(id, 0, "{\"kind\": \"putZone\", \"object\": {\"name\": \"outside\"}}")
        .then()
        .statusCode(200);
    review()
        .then()
        .statusCode(200)
        .body("notCompared", containsString("zones"))
        .body("verdicts", empty())
        .body("complete", equalTo(false));
    ruth.request().get("/api/rulebases/" + id + "/revisions/9").then().statusCode(404);
    ruth.request().get("/api/rulebases/999999/revisions").then().statusCode(404);
  }

  @Test
  void aProtectedConnectionThatNeedsTheDirectoryStopsAPublish() {
    String document =
        """
        {"ironSieve": 1, "name": "any", "vocabularies": [{"coordinate": "person",
          "edition": "monday", "values": ["nobody signed in", "ann"],
          "sets": [{"name": "admins", "members": ["ann"]}]}],
         "checks": [{"name": "The way in", "connection": "from 10.1.1.1 to 10.2.2.2 tcp/22 person ann",
           "verdict": "allow", "protected": true}],
         "sections": [{"id": "s", "name": "S", "rules": [
           {"id": "a", "name": "Admins", "verdict": "allow", "services": {"items": ["tcp/22"]}}]}]}
        """;
    long guarded =
        ruth.request()
            .queryParam("name", "Lock-out")
            .body(document)
            .post("/api/rulebases/import")
            .then()
            .statusCode(200)
            .extract()
            .jsonPath()
            .getLong("id");
    String onlyAdmins =
        """
        {"kind": "replaceRules", "rules": [{"id": "a", "name": "Admins", "verdict": "allow",
          "services": {"items": ["tcp/22"]}, "terms": {"person": {"items": ["admins"]}}}]}""";
    ruth.edit(guarded, 0, onlyAdmins).then().statusCode(200);
    String path = "/api/rulebases/" + guarded;
    ruth.request()
        .get(path + "/draft/checks")
        .then()
        .body("[0].holds", equalTo(false))
        .body("[0].verdict", equalTo("allow"))
        .body("[0].lockedOut.verdict", equalTo("drop"));
    ruth.request()
        .get(path + "/draft/review")
        .then()
        .body("blockers.kind", contains("lock-out"))
        .body("blockers[0].text", containsString("while the directory is away"));
    ruth.request().body("{\"version\": 1}").post(path + "/revisions").then().statusCode(409);
  }

  @Test
  void discardingTakesBackEverybodysChangesAndTheHistoryKeepsThem() {
    ruth.edit(id, 0, B_ABOVE_A).then().statusCode(200);
    tomas.edit(id, 1, NARROW_BELOW_A).then().statusCode(200);
    ruth.edit(id, 2, A_ABOVE_C).then().statusCode(200);
    String discard = "/api/rulebases/" + id + "/draft/discard";
    ruth.request().body("{\"version\": 2}").post(discard).then().statusCode(409);
    Client.signedIn("ines.calder")
        .request()
        .body("{\"version\": 3}")
        .post(discard)
        .then()
        .statusCode(403);
    ruth.request().body("{\"version\": 3}").post(discard).then().statusCode(204);
    assertThat(ruth.order(id)).isEqualTo("abc");
    assertThat(ruth.draft(id).jsonPath().getInt("changes")).isZero();
    assertThat(
            ruth.request()
                .get("/api/rulebases/" + id + "/draft/changes")
                .jsonPath()
                .getList("kind", String.class))
        .containsExactly("undo", "undo", "undo", "edit", "edit", "edit");
    ruth.request().body("{\"version\": 6}").post(discard).then().statusCode(409);
    Client.signedIn("ruth.okell").edit(id, 6, B_ABOVE_A).then().statusCode(200);
    assertThat(ruth.order(id)).isEqualTo("bac");
  }

  @Test
  void theReviewListsSettingsThatChangeNoVerdict() {
    String rule =
        """
        {"id": "b", "name": "B", "verdict": "allow", "services": {"items": ["tcp/443"]}, %s}""";
    String plan =
        """
        {"kind": "putRatePlan", "ratePlan": {"name": "Slow", "ceiling": "2 Mbit/s",
          "counted": "each rule"}}""";
    ruth.edit(id, 0, plan).then().statusCode(200);
    String edit = "{\"kind\": \"replaceRules\", \"rules\": [" + rule + "]}";
    ruth.edit(id, 1, edit.formatted("\"log\": \"end\", \"ratePlan\": \"Slow\""))
        .then()
        .statusCode(200);
    JsonPath review = review().jsonPath();
    assertThat(review.getList("verdicts")).isEmpty();
    assertThat(review.getList("settings.setting", String.class))
        .containsExactly("log", "rate plan", "definition");
    assertThat(review.getList("settings.before", String.class))
        .containsExactly("off", "none", "none");
    assertThat(review.getList("settings.after", String.class))
        .containsExactly("end", "Slow", "at most 2 Mbit/s, for each rule");
    ruth.edit(id, 2, edit.formatted("\"observeOnly\": true")).then().statusCode(200);
    assertThat(review().jsonPath().getList("settings.after", String.class))
        .contains("observe only");
  }

  @Test
  void aDraftThatWasReadBeforeItsPublishIsReadAnewAfterIt() {
    ruth.edit(id, 0, B_ABOVE_A).then().statusCode(200);
    assertThat(tomas.draft(id).jsonPath().getInt("changes")).isEqualTo(1);
    ruth.request()
        .body("{\"version\": 1}")
        .post("/api/rulebases/" + id + "/revisions")
        .then()
        .statusCode(200);
    JsonPath draft = tomas.draft(id).jsonPath();
    assertThat(draft.getInt("revision")).isEqualTo(2);
    assertThat(draft.getInt("changes")).isZero();
    assertThat(draft.getLong("version")).isEqualTo(1);
  }
}
