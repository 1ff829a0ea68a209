package dev.ironsieve.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.hamcrest.Matchers.contains;
import static org.hamcrest.Matchers.containsString;
import static org.hamcrest.Matchers.equalTo;
import static org.hamcrest.Matchers.hasSize;

import io.quarkus.test.junit.QuarkusTest;
import io.restassured.path.json.JsonPath;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestInfo;

@QuarkusTest
class DraftTest {
  private static final String MOVE_A_DOWN =
      "{\"kind\": \"moveRules\", \"ids\": [\"a\"], \"place\": {\"below\": \"b\"}}";

  private static String rename(String id, String name) {
    return """
        {"kind": "replaceRules", "rules": [{"id": "%s", "name": "%s", "verdict": "allow",
          "services": {"items": ["tcp/443"]}}]}"""
        .formatted(id, name);
  }

  private Client ruth;
  private Client tomas;
  private long id;

  @BeforeEach
  void freshRulebase(TestInfo test) {
    ruth = Client.signedIn("ruth.okell");
    tomas = Client.signedIn("tomas.wren");
    id = ruth.rulebase("Draft of " + test.getDisplayName());
  }

  @Test
  void theFirstLookTellsWhatIsShadowed() {
    JsonPath draft = ruth.draft(id).jsonPath();
    assertThat(draft.getString("standings.b.findings[0].kind")).isEqualTo("shadowed");
    assertThat(draft.<String>getList("standings.b.findings[0].causes")).containsExactly("a");
    assertThat(draft.getString("standings.b.findings[0].decidedBy")).isEqualTo("a");
    assertThat(draft.getString("standings.b.findings[0].witness")).contains("tcp/443");
    assertThat(draft.getFloat("standings.c.share")).isEqualTo(1f);
  }

  @Test
  void anEditAnswersWithTheStandingsThatItChanged() {
    ruth.edit(id, 0, MOVE_A_DOWN)
        .then()
        .statusCode(200)
        .body("version", equalTo(1))
        .body("by", equalTo("Ruth Okell"))
        .body("standings.b.kind", equalTo("decides"))
        .body("standings.a.kind", equalTo("decides"))
        .body("standings.size()", equalTo(2));
    assertThat(ruth.order(id)).isEqualTo("bac");
  }

  @Test
  void aStaleWriteIsAConflictAndOverwritesNothing() {
    ruth.edit(id, 0, rename("b", "Ruth's name")).then().statusCode(200);
    tomas
        .edit(id, 0, rename("b", "Tomas's name"))
        .then()
        .statusCode(409)
        .body("conflict.by", equalTo("Ruth Okell"))
        .body("conflict.what", equalTo("rule"))
        .body("conflict.key", equalTo("b"))
        .body("conflict.version", equalTo(1))
        .body("detail", containsString("Ruth Okell changed the rule \"Ruth's name\""));
    assertThat(ruth.draft(id).jsonPath().getString("sections[0].rules[1].name"))
        .isEqualTo("Ruth's name");
    tomas.edit(id, 0, rename("c", "Other rule")).then().statusCode(200);
    tomas.edit(id, 2, rename("b", "Now seen")).then().statusCode(200);
  }

  @Test
  void onesOwnPageIsNoConflictButAnotherPageOfOnesOwnIs() {
    ruth.edit(id, 0, rename("b", "first")).then().statusCode(200);
    ruth.edit(id, 0, rename("b", "second")).then().statusCode(200);
    Client other = Client.signedIn("ruth.okell");
    other.edit(id, 0, rename("b", "third")).then().statusCode(409);
  }

  @Test
  void anEditBesideADeletedRuleNamesWhoTookItAway() {
    ruth.edit(id, 0, "{\"kind\": \"deleteRules\", \"ids\": [\"b\"]}").then().statusCode(200);
    tomas
        .edit(id, 0, MOVE_A_DOWN)
        .then()
        .statusCode(409)
        .body("detail", containsString("Ruth Okell deleted the rule"));
  }

  @Test
  void undoGoesBackManyStepsAlsoAfterTheServerForgot() {
    ruth.edit(id, 0, MOVE_A_DOWN).then().statusCode(200);
    ruth.edit(id, 1, rename("b", "Renamed")).then().statusCode(200);
    ruth.edit(id, 2, "{\"kind\": \"deleteRules\", \"ids\": [\"c\", \"a\"]}").then().statusCode(200);
    assertThat(ruth.order(id)).isEqualTo("b");
    Forgetting.drafts();
    ruth.post(id, "undo").then().statusCode(200).body("kind", equalTo("undo"));
    assertThat(ruth.order(id)).isEqualTo("bac");
    ruth.post(id, "undo").then().statusCode(200);
    ruth.post(id, "undo").then().statusCode(200);
    assertThat(ruth.order(id)).isEqualTo("abc");
    assertThat(ruth.draft(id).jsonPath().getInt("changes")).isZero();
    ruth.post(id, "undo").then().statusCode(409).body("detail", containsString("nothing"));
    Forgetting.drafts();
    ruth.post(id, "redo").then().statusCode(200);
    assertThat(ruth.order(id)).isEqualTo("bac");
    ruth.post(id, "redo").then().statusCode(200);
    ruth.post(id, "redo").then().statusCode(200);
    assertThat(ruth.order(id)).isEqualTo("b");
    ruth.post(id, "redo").then().statusCode(409);
  }

  @Test
  void undoNeverTakesBackSomebodyElsesWork() {
    ruth.edit(id, 0, rename("b", "Ruth's")).then().statusCode(200);
    tomas.edit(id, 1, rename("b", "Tomas's")).then().statusCode(200);
    ruth.post(id, "undo")
        .then()
        .statusCode(409)
        .body("detail", containsString("Tomas Wren changed the rule"));
    tomas.post(id, "undo").then().statusCode(200);
    assertThat(ruth.draft(id).jsonPath().getString("sections[0].rules[1].name"))
        .isEqualTo("Ruth's");
  }

  @Test
  void everyChangeIsRecordedWithWhoWhenAndWhat() {
    ruth.edit(id, 0, MOVE_A_DOWN).then().statusCode(200);
    tomas.edit(id, 1, rename("c", "C2")).then().statusCode(200);
    ruth.post(id, "undo").then().statusCode(200);
    ruth.request()
        .get("/api/rulebases/" + id + "/draft/changes")
        .then()
        .body("version", contains(3, 2, 1))
        .body("kind", contains("undo", "edit", "edit"))
        .body("account", contains("ruth.okell", "tomas.wren", "ruth.okell"))
        .body("edit.kind", contains("moveRules", "replaceRules", "moveRules"))
        .body("[0].at", containsString("T"));
    ruth.request()
        .get("/api/rulebases/" + id + "/draft/changes?before=2&limit=5")
        .then()
        .body("", hasSize(1));
  }

  @Test
  void theProbeTellsTheRuleAndWhyOthersPassed() {
    ruth.request()
        .body("{\"line\": \"from in inside udp/53\"}")
        .post("/api/rulebases/" + id + "/draft/probe")
        .then()
        .statusCode(200)
        .body("rule", equalTo("c"))
        .body("verdict", equalTo("allow"))
        .body("passedCount", equalTo(2))
        .body("passed.rule", contains("a", "b"))
        .body("passed[0].parts", contains("services"));
    ruth.request()
        .body("{\"line\": \"from 10.4.2.999\"}")
        .post("/api/rulebases/" + id + "/draft/probe")
        .then()
        .statusCode(422)
        .body("faults[0].path", equalTo("character 13"))
        .body("faults[0].expected", containsString("0 to 255"));
  }

  @Test
  void aRefusedEditLeavesNothingBehind() {
    String half =
        "{\"kind\": \"batch\", \"edits\": ["
            + MOVE_A_DOWN
            + ", {\"kind\": \"putZone\", \"object\": {\"name\": \"inside\"}}]}";
    ruth.edit(id, 0, half)
        .then()
        .statusCode(422)
        .body("faults[0].expected", equalTo("a name not in use"));
    assertThat(ruth.order(id)).isEqualTo("abc");
    assertThat(ruth.draft(id).jsonPath().getInt("version")).isZero();
  }
}
