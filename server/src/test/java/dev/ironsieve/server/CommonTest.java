package dev.ironsieve.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.hamcrest.Matchers.contains;
import static org.hamcrest.Matchers.containsString;
import static org.hamcrest.Matchers.empty;
import static org.hamcrest.Matchers.equalTo;
import static org.hamcrest.Matchers.hasItem;
import static org.hamcrest.Matchers.hasKey;
import static org.hamcrest.Matchers.hasSize;
import static org.hamcrest.Matchers.not;

import io.quarkus.test.junit.QuarkusTest;
import io.restassured.response.Response;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestInfo;

/** Common rulebases, and the rulebases below them. */
@QuarkusTest
class CommonTest {
  private static final String NO_UDP =
      """
      {"kind": "insertRules", "place": {"startOf": "%s"}, "rules": [
        {"id": "%s", "name": "No UDP", "verdict": "drop", "services": {"items": ["udp"]}}]}""";
  private static final String DEPOT =
      "{\"kind\": \"putAddress\", \"object\": {\"name\": \"Depot\", \"members\": [\"%s\"]}}";

  private Client ruth;
  private Client tomas;
  private long common;
  private long local;
  private String head;
  private String tail;
  private String commonName;

  @BeforeEach
  void freshRulebases(TestInfo test) {
    ruth = Client.signedIn("ruth.okell");
    tomas = Client.signedIn("tomas.wren");
    commonName = "Common for " + test.getDisplayName();
    common =
        ruth.request()
            .body("{\"name\": \"%s\", \"kind\": \"common\"}".formatted(commonName))
            .post("/api/rulebases")
            .then()
            .statusCode(200)
            .extract()
            .jsonPath()
            .getLong("id");
    local = ruth.rulebase("Local for " + test.getDisplayName());
    head = ruth.draft(common).jsonPath().getString("sections[0].id");
    tail = ruth.draft(common).jsonPath().getString("sections[1].id");
  }

  private static String at(long rulebase, String path) {
    return "/api/rulebases/" + rulebase + path;
  }

  private long version(long rulebase) {
    return ruth.draft(rulebase).jsonPath().getLong("version");
  }

  private Response publish(long rulebase) {
    return ruth.request()
        .body("{\"version\": %d, \"overrideReason\": \"a test\"}".formatted(version(rulebase)))
        .post(at(rulebase, "/revisions"));
  }

  private Response put(long rulebase, Long above) {
    String of = above == null ? "" : ", \"rulebase\": " + above;
    return tomas
        .request()
        .body("{\"version\": %d%s}".formatted(version(rulebase), of))
        .put(at(rulebase, "/draft/common"));
  }

  private void noUdp(String section, String rule) {
    ruth.edit(common, version(common), NO_UDP.formatted(section, rule)).then().statusCode(200);
  }

  @Test
  void theRulesStandAroundTheLocalOnesAndAreLocked() {
    noUdp(head, "h");
    noUdp(tail, "t");
    publish(common).then().statusCode(200);
    put(local, common).then().statusCode(204);
    ruth.draft(local)
        .then()
        .body("sections.rules.flatten().id", contains("h", "a", "b", "c", "t"))
        .body("common.rulebase", equalTo(commonName))
        .body("common.revision", equalTo(2))
        .body("common.sections", hasKey(head))
        .body("common.sections", not(hasKey("s")))
        .body("standings.c.kind", equalTo("covered"))
        .body("changes", equalTo(1));
    ruth.edit(local, version(local), "{\"kind\": \"deleteRules\", \"ids\": [\"h\"]}")
        .then()
        .statusCode(422)
        .body("detail", containsString(commonName));
    ruth.edit(local, version(local), "{\"kind\": \"putCommon\"}").then().statusCode(422);
    put(local, common).then().statusCode(409);
    put(common, local).then().statusCode(409); // which is below it
    put(common, common).then().statusCode(409);
    tomas.post(local, "undo").then().statusCode(200);
    assertThat(ruth.order(local)).isEqualTo("abc");
  }

  @Test
  void aRulebaseTellsWhomItReachesAndWhatItDoesThere() {
    publishedBelow("h");
    ruth.request()
        .get(at(common, "/below"))
        .then()
        .body("id", contains((int) local))
        .body("gateways[0]", empty());
    noUdp(tail, "t");
    ruth.request()
        .get(at(common, "/below/" + local))
        .then()
        .statusCode(200)
        .body("standings.h.kind", equalTo("decides"))
        .body("standings.t.kind", equalTo("covered"));
    ruth.request().get(at(common, "/below/" + common)).then().statusCode(404);
  }

  private void publishedBelow(String rule) {
    noUdp(head, rule);
    publish(common).then().statusCode(200);
    put(local, common).then().statusCode(204);
    publish(local).then().statusCode(200);
  }

  @Test
  void aPublishGivesEveryRulebaseBelowARevisionAndKeepsItsUnpublishedChanges() {
    publishedBelow("h");
    String rename = "{\"kind\": \"renameSection\", \"id\": \"s\", \"name\": \"Mine\"}";
    tomas.edit(local, version(local), rename).then().statusCode(200);
    String noA = "{\"kind\": \"deleteRules\", \"ids\": [\"a\"]}";
    ruth.edit(local, version(local), noA).then().statusCode(200);
    tomas.edit(local, version(local), DEPOT.formatted("10.9.0.0/16")).then().statusCode(200);
    tomas.post(local, "undo").then().statusCode(200);
    noUdp(tail, "t");
    ruth.request()
        .get(at(common, "/draft/review/below/" + local))
        .then()
        .statusCode(200)
        .body("newFindings.rule", contains("t"));
    publish(common).then().statusCode(200).body("number", equalTo(3));
    ruth.request()
        .get(at(local, "/revisions"))
        .then()
        .body("number", contains(3, 2, 1))
        .body("[0].note", equalTo("Common rules: revision 3 of " + commonName));
    ruth.request()
        .get(at(local, "/revisions/3"))
        .then()
        .body("sections.rules.flatten().id", contains("a", "b", "c"))
        .body("common.tail.rules.flatten().id", contains("t"));
    ruth.draft(local)
        .then()
        .body("revision", equalTo(3))
        .body("changes", equalTo(2))
        .body("sections.rules.flatten().id", contains("h", "b", "c", "t"))
        .body("sections[1].name", equalTo("Mine"));
    ruth.post(local, "undo").then().statusCode(200);
    assertThat(ruth.order(local)).isEqualTo("habct");
    tomas.post(local, "undo").then().statusCode(200);
    ruth.draft(local).then().body("sections[1].name", equalTo("S")).body("changes", equalTo(0));
  }

  @Test
  void objectsThatClashBelowStopThePublish() {
    publishedBelow("h");
    ruth.edit(local, version(local), DEPOT.formatted("10.9.0.0/16")).then().statusCode(200);
    ruth.edit(common, version(common), DEPOT.formatted("10.7.0.0/16")).then().statusCode(200);
    ruth.request()
        .get(at(common, "/draft/review"))
        .then()
        .body("blockers", hasSize(1))
        .body("blockers[0].kind", equalTo("below"))
        .body("blockers[0].text", containsString("Depot"));
    publish(common).then().statusCode(409).body("detail", containsString("Depot"));
    ruth.request()
        .get(at(common, "/below/" + local))
        .then()
        .body("problem", containsString("Depot"));
    ruth.draft(common).then().body("changes", equalTo(1));
    ruth.draft(local).then().body("changes", equalTo(1)).body("revision", equalTo(2));
  }

  @Test
  void aFailingCheckBelowStopsThePublish() {
    publishedBelow("h");
    String check =
        """
        {"kind": "putCheck", "check": {"name": "names", "verdict": "allow",
         "connection": "from 10.0.0.1 in inside to 10.0.0.2 in inside udp/53"}}""";
    ruth.edit(local, version(local), check).then().statusCode(200);
    publish(local).then().statusCode(200);
    noUdp(tail, "t");
    ruth.request()
        .get(at(common, "/draft/review"))
        .then()
        .body("blockers.text", hasItem(containsString("The check \"names\" fails")));
    ruth.request()
        .body("{\"version\": %d}".formatted(version(common)))
        .post(at(common, "/revisions"))
        .then()
        .statusCode(409)
        .body("detail", containsString("blockers"));
  }

  @Test
  void aCommonRulebaseBelowAnotherHandsItsRulesOn() {
    long top =
        ruth.request()
            .body("{\"name\": \"Above %s\", \"kind\": \"common\"}".formatted(commonName))
            .post("/api/rulebases")
            .jsonPath()
            .getLong("id");
    publishedBelow("h");
    put(common, top).then().statusCode(204);
    publish(common).then().statusCode(200);
    String topHead = ruth.draft(top).jsonPath().getString("sections[0].id");
    ruth.edit(top, version(top), NO_UDP.formatted(topHead, "first")).then().statusCode(200);
    ruth.request().get(at(top, "/below")).then().body("id", contains((int) common, (int) local));
    ruth.request()
        .get(at(top, "/below/" + local))
        .then()
        .body("standings.first.kind", equalTo("decides"));
    publish(top).then().statusCode(200);
    assertThat(ruth.order(local)).isEqualTo("firsthabc");
    ruth.request()
        .get(at(local, "/revisions/4"))
        .then()
        .body("common.common.head.rules.flatten().id", contains("first"))
        .body("common.revision", equalTo(4));
    put(top, common).then().statusCode(409);
  }

  @Test
  void noGatewayFollowsACommonRulebase() {
    Client.signedIn("odile.marsh")
        .request()
        .body("{\"name\": \"Nowhere\"}")
        .post(at(common, "/gateways"))
        .then()
        .statusCode(409);
  }
}
