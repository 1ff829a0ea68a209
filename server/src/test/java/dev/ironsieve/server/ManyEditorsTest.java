package dev.ironsieve.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.hamcrest.Matchers.containsString;
import static org.hamcrest.Matchers.equalTo;

import io.quarkus.test.junit.QuarkusTest;
import io.restassured.path.json.JsonPath;
import io.restassured.response.Response;
import java.util.List;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestInfo;

/** Requests that are sent twice, edits at the same moment, and what must never be stored. */
@QuarkusTest
class ManyEditorsTest {
  private static final String RULE =
      "{\"kind\": \"replaceRules\", \"rules\": [{\"id\": \"b\", \"name\": \"%s\","
          + " \"verdict\": \"%s\", \"services\": {\"items\": [\"%s\"]}}]}";

  private Client ruth;
  private Client tomas;
  private long id;

  @BeforeEach
  void freshRulebase(TestInfo test) {
    ruth = Client.signedIn("ruth.okell");
    tomas = Client.signedIn("tomas.wren");
    id = ruth.rulebase("Many editors: " + test.getDisplayName());
  }

  private Response send(String key, String action, String body) {
    var request = ruth.request().header("Idempotency-Key", key).body(body);
    String draft = "/api/rulebases/" + id + "/draft";
    return action.isEmpty() ? request.patch(draft) : request.post(draft + "/" + action);
  }

  @Test
  void aRequestThatIsSentTwiceActsOnce() {
    String insert =
        "{\"version\": 0, \"edit\": {\"kind\": \"insertRules\", \"place\": {\"below\": \"a\"},"
            + " \"rules\": [{\"id\": \"x\", \"name\": \"X\", \"verdict\": \"drop\"}]}}";
    send("k1", "", insert).then().statusCode(200).body("version", equalTo(1));
    send("k1", "", insert).then().statusCode(200).body("version", equalTo(1));
    assertThat(ruth.order(id)).isEqualTo("axbc");
    send("k2", "undo", "").then().statusCode(200).body("version", equalTo(2));
    Forgetting.drafts();
    send("k2", "undo", "").then().statusCode(200).body("version", equalTo(2));
    assertThat(ruth.order(id)).isEqualTo("abc");
    send("k3", "redo", "").then().statusCode(200).body("version", equalTo(3));
    send("k3", "redo", "").then().statusCode(200).body("version", equalTo(3));
    assertThat(ruth.order(id)).isEqualTo("axbc");
    send("k 4", "undo", "").then().statusCode(422);
  }

  @Test
  void editsOfDifferentPartsOfOneRuleAreBothKept() {
    ruth.edit(id, 0, RULE.formatted("Ruth's name", "allow", "tcp/443")).then().statusCode(200);
    tomas.edit(id, 0, RULE.formatted("B", "allow", "tcp/8443")).then().statusCode(200);
    JsonPath rule = ruth.draft(id).jsonPath();
    assertThat(rule.getString("sections[0].rules[1].name")).isEqualTo("Ruth's name");
    assertThat(rule.<String>getList("sections[0].rules[1].services.items"))
        .containsExactly("tcp/8443");
    tomas.post(id, "undo").then().statusCode(200);
    rule = ruth.draft(id).jsonPath();
    assertThat(rule.getString("sections[0].rules[1].name")).isEqualTo("Ruth's name");
    assertThat(rule.<String>getList("sections[0].rules[1].services.items"))
        .containsExactly("tcp/443");
    ruth.edit(id, 3, RULE.formatted("Again", "allow", "tcp/443")).then().statusCode(200);
    tomas.edit(id, 3, RULE.formatted("Mine", "allow", "tcp/443")).then().statusCode(409);
  }

  @Test
  void batchesInsideBatchesHaveALimitAndNeverBreakHistory() {
    // Two rules come back by a batch, so that the inverse has one level more.
    String deletion = "{\"kind\": \"deleteRules\", \"ids\": [\"b\", \"c\"]}";
    for (int levels = 1; levels <= 20; levels++) {
      String edit =
          "{\"kind\": \"batch\", \"edits\": [".repeat(levels) + deletion + "]}".repeat(levels);
      long version = ruth.draft(id).jsonPath().getLong("version");
      int status = ruth.edit(id, version, edit).statusCode();
      assertThat(status == 200).as(levels + " levels: " + status).isEqualTo(levels <= 10);
      assertThat(status).isLessThan(500);
      Forgetting.drafts();
      ruth.request().get("/api/rulebases/" + id + "/draft/changes").then().statusCode(200);
      if (status == 200) {
        ruth.post(id, "undo").then().statusCode(200);
        assertThat(ruth.order(id)).isEqualTo("abc");
      }
    }
  }

  @Test
  void manyChangesAreOpenedFromAStoredState() {
    for (int i = 0; i < 25; i++) {
      ruth.edit(id, i, RULE.formatted("Name " + i, "allow", "tcp/443")).then().statusCode(200);
    }
    Snapshots.store();
    assertThat(Snapshots.versions(id)).hasSize(2).allMatch(version -> version >= 10);
    Forgetting.drafts();
    JsonPath draft = ruth.draft(id).jsonPath();
    assertThat(draft.getInt("version")).isEqualTo(25);
    assertThat(draft.getInt("changes")).isEqualTo(25);
    assertThat(draft.getString("sections[0].rules[1].name")).isEqualTo("Name 24");
    for (int i = 23; i >= 0; i--) {
      ruth.post(id, "undo").then().statusCode(200);
    }
    assertThat(ruth.draft(id).jsonPath().getString("sections[0].rules[1].name"))
        .isEqualTo("Name 0");
  }

  @Test
  void editionsThatAreNotOfferedCannotBeBroughtByAnEdit() {
    for (String edit :
        List.of(
            "{\"kind\": \"putFeed\", \"feed\": {\"name\": \"Watched\", \"kind\": \"addresses\","
                + " \"edition\": \"1\", \"sets\": []}}",
            "{\"kind\": \"putVocabulary\", \"vocabulary\": {\"coordinate\": \"person\","
                + " \"edition\": \"1\", \"values\": [\"ann\"]}}",
            "{\"kind\": \"putVocabulary\", \"vocabulary\": {\"coordinate\": \"application\","
                + " \"edition\": \"2026-11\", \"values\": [\"ann\"]}}")) {
      assertThat(ruth.edit(id, 0, edit).statusCode()).as(edit).isIn(404, 422);
      assertThat(ruth.edit(id, 0, "{\"kind\": \"batch\", \"edits\": [" + edit + "]}").statusCode())
          .as(edit)
          .isIn(404, 422);
    }
    assertThat(ruth.draft(id).jsonPath().getInt("version")).isZero();
  }

  @Test
  void oneRuleTwiceInAnEditIsRefused() {
    String rule = "{\"id\": \"b\", \"name\": \"%s\", \"verdict\": \"drop\"}";
    ruth.edit(
            id,
            0,
            "{\"kind\": \"replaceRules\", \"rules\": ["
                + rule.formatted("B1")
                + ","
                + rule.formatted("B2")
                + "]}")
        .then()
        .statusCode(422)
        .body("detail", containsString("each id once"));
  }

  @Test
  void aDeletedCheckComesBackInItsPlace() {
    String put =
        "{\"kind\": \"putCheck\", \"check\": {\"name\": \"%s\", \"connection\": \"tcp/443\","
            + " \"verdict\": \"drop\"}}";
    for (int i = 0; i < 3; i++) {
      ruth.edit(id, i, put.formatted("check " + i)).then().statusCode(200);
    }
    ruth.edit(id, 3, "{\"kind\": \"deleteCheck\", \"name\": \"check 1\"}").then().statusCode(200);
    ruth.post(id, "undo").then().statusCode(200);
    assertThat(ruth.draft(id).jsonPath().<String>getList("checks.name"))
        .containsExactly("check 0", "check 1", "check 2");
  }

  @Test
  void groupsThatNameEachLevelTwiceAreResolvedOnce() {
    StringBuilder groups = new StringBuilder("{\"name\": \"g0\", \"members\": [\"10.0.0.1\"]}");
    for (int level = 1; level <= 60; level++) {
      groups.append(
          ",{\"name\": \"g%d\", \"members\": [\"g%d\", \"g%d\"]}"
              .formatted(level, level - 1, level - 1));
    }
    String document =
        "{\"ironSieve\": 1, \"name\": \"n\", \"addresses\": ["
            + groups
            + "], \"sections\": [{\"id\": \"s\", \"name\": \"S\", \"rules\": [{\"id\": \"a\","
            + " \"name\": \"A\", \"verdict\": \"drop\","
            + " \"toAddresses\": {\"items\": [\"g60\"]}}]}]}";
    long nested =
        ruth.request()
            .queryParam("name", "Nested groups")
            .body(document)
            .post("/api/rulebases/import")
            .then()
            .statusCode(200)
            .extract()
            .jsonPath()
            .getLong("id");
    assertThat(ruth.draft(nested).jsonPath().getString("standings.a.witness")).contains("10.0.0.1");
  }
}
