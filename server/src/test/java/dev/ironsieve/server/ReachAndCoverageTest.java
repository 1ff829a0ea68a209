package dev.ironsieve.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.hamcrest.Matchers.containsString;
import static org.hamcrest.Matchers.empty;
import static org.hamcrest.Matchers.equalTo;
import static org.hamcrest.Matchers.everyItem;
import static org.hamcrest.Matchers.greaterThan;
import static org.hamcrest.Matchers.hasItem;
import static org.hamcrest.Matchers.is;
import static org.hamcrest.Matchers.nullValue;

import io.quarkus.test.junit.QuarkusTest;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestInfo;

/** Reach questions, and which mistakes the checks notice. */
@QuarkusTest
class ReachAndCoverageTest {
  private Client ruth;
  private long id;
  private String path;

  @BeforeEach
  void freshRulebase(TestInfo test) {
    ruth = Client.signedIn("ruth.okell");
    id = ruth.rulebase("Reach of " + test.getDisplayName());
    path = "/api/rulebases/" + id + "/draft/";
  }

  @Test
  void aReachQuestionIsAnsweredByPart() {
    ruth.request()
        .queryParam("question", "who can reach 192.0.2.1 service tcp/443")
        .get(path + "reach")
        .then()
        .statusCode(200)
        .body("question", equalTo("to 192.0.2.1 service tcp/443"))
        .body("complete", is(true))
        .body("lines.verdict", hasItem("drop"))
        .body("lines[0].rule", equalTo("a"))
        .body("lines[0].parts.size()", equalTo(0))
        .body("lines[0].witness", containsString("tcp/443"));
    ruth.request()
        .queryParam("question", "who can reach nowhere")
        .get(path + "reach")
        .then()
        .statusCode(422)
        .body("faults[0].expected", containsString("a zone, an address"))
        .body("faults[0].found", equalTo("nowhere"));
    ruth.request().get(path + "reach").then().statusCode(422);
  }

  @Test
  void theMatrixCountsWhatIsOpenBetweenZones() {
    ruth.edit(id, 0, "{\"kind\": \"putZone\", \"object\": {\"name\": \"quay\", \"members\": []}}");
    ruth.edit(id, 1, "{\"kind\": \"putZone\", \"object\": {\"name\": \"sea\", \"members\": []}}");
    ruth.request()
        .get(path + "reach/matrix")
        .then()
        .statusCode(200)
        .body("zones", equalTo(List.of("inside", "quay", "sea")))
        .body("of", equalTo(3))
        .body("cells.size()", equalTo(9))
        .body("cells.exact", everyItem(is(true)))
        .body("cells.of", everyItem(greaterThan(0)));
    ruth.request().queryParam("zone", "land").get(path + "reach/matrix").then().statusCode(404);
  }

  @Test
  void theSharesOfTheRulesAddUp() {
    Map<String, Integer> decided =
        ruth.request()
            .get(path + "reach/shares")
            .then()
            .statusCode(200)
            .body("samples", equalTo(20_000))
            .extract()
            .path("decided");
    assertThat(decided.values().stream().mapToInt(Integer::intValue).sum()).isEqualTo(20_000);
    assertThat(decided).containsKey("");
  }

  @Test
  void checksThatAreSuggestedNoticeEveryMistake() {
    Map<String, Object> before =
        ruth.request().get(path + "checks/coverage").then().extract().path("$");
    assertThat((int) before.get("noticed")).isZero();
    assertThat((int) before.get("missed")).isPositive();
    List<Map<String, String>> suggested =
        ruth.request()
            .queryParam("rule", "a", "b", "c")
            .get(path + "checks/suggested")
            .then()
            .statusCode(200)
            .body("undecided", equalTo(0))
            .extract()
            .path("checks");
    int version = 0;
    for (Map<String, String> check : suggested) {
      ruth.edit(
              id,
              version,
              """
              {"kind": "putCheck", "check": {"name": "c%d", "connection": "%s", "verdict": "%s",
                "group": "Corners", "tags": ["made"]}}
              """
                  .formatted(version, check.get("line"), check.get("verdict")))
          .then()
          .statusCode(200);
      version++;
    }
    ruth.request()
        .get(path + "checks/coverage")
        .then()
        .body("missed", equalTo(0))
        .body("noticed", equalTo(before.get("missed")))
        .body("examples", empty());
    ruth.request()
        .get("/api/rulebases/" + id + "/draft")
        .then()
        .body("checks[0].group", equalTo("Corners"))
        .body("checks[0].tags", equalTo(List.of("made")));
    ruth.request().get(path + "checks/suggested").then().statusCode(422);
  }

  @Test
  void linesThatMayBecomeChecksAreReadOneByOne() {
    ruth.request()
        .body(
            "{\"lines\": [\"from 10.0.0.1 to 192.0.2.1 tcp/443\", \"from nowhere\","
                + " \"all who can reach 192.0.2.1\"]}")
        .post(path + "checks/read")
        .then()
        .statusCode(200)
        .body("results[0].line", equalTo("from 10.0.0.1 in inside to 192.0.2.1 in inside tcp/443"))
        .body("results[0].verdict", equalTo("drop"))
        .body("results[1].line", nullValue())
        .body("results[1].fault", containsString("at character 6"))
        .body("results[2].line", equalTo("all to 192.0.2.1"));
    ruth.request().body("{}").post(path + "checks/read").then().statusCode(422);
  }

  @Test
  void aBroadRuleIsNarrowedToTheConnectionsOfChecks() {
    String repairs = path + "rules/wide/repairs/too-broad";
    ruth.edit(
            id,
            0,
            "{\"kind\": \"insertRules\", \"place\": {\"above\": \"a\"}, \"rules\": [{\"id\": \"wide\","
                + " \"name\": \"Wide\", \"verdict\": \"allow\"}]}")
        .then()
        .statusCode(200);
    ruth.request().get(repairs).then().statusCode(200).body("", empty());
    ruth.edit(
            id,
            1,
            "{\"kind\": \"putCheck\", \"check\": {\"name\": \"ssh\", \"connection\":"
                + " \"from 10.0.0.1 to 10.0.0.2 tcp/22\", \"verdict\": \"allow\"}}")
        .then()
        .statusCode(200);
    ruth.request()
        .get(repairs)
        .then()
        .body("summary", hasItem("Narrow \"Wide\" to the use of it: tcp/22"))
        .body("[0].edit.kind", equalTo("replaceRules"));
  }

  @Test
  void aSetOfConnectionsIsACheck() {
    String put =
        "{\"kind\": \"putCheck\", \"check\": {\"name\": \"nobody\", \"connection\":"
            + " \"all who can reach 192.0.2.1 service tcp/443\", \"verdict\": \"drop\"}}";
    ruth.edit(id, 0, put).then().statusCode(200);
    ruth.request()
        .get(path + "checks")
        .then()
        .body("[0].name", equalTo("nobody"))
        .body("[0].holds", is(true));
    ruth.edit(id, 1, "{\"kind\": \"deleteRules\", \"ids\": [\"a\"]}").then().statusCode(200);
    ruth.request()
        .get(path + "checks")
        .then()
        .body("[0].holds", is(false))
        .body("[0].rule", equalTo("b"))
        .body("[0].counterexample", containsString("tcp/443"));
  }
}
