package dev.ironsieve.server;

import static org.hamcrest.Matchers.contains;
import static org.hamcrest.Matchers.containsString;
import static org.hamcrest.Matchers.empty;
import static org.hamcrest.Matchers.equalTo;
import static org.hamcrest.Matchers.everyItem;
import static org.hamcrest.Matchers.hasItem;
import static org.hamcrest.Matchers.is;

import io.quarkus.test.junit.QuarkusTest;
import io.restassured.response.ValidatableResponse;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestInfo;

/** Where rules can stand, and which match something: what the list of rules asks. */
@QuarkusTest
class RuleQuestionsTest {
  private Client ruth;
  private long id;
  private String path;

  @BeforeEach
  void freshRulebase(TestInfo test) {
    ruth = Client.signedIn("ruth.okell");
    id = ruth.rulebase("Questions of " + test.getDisplayName());
    path = "/api/rulebases/" + id + "/draft/rules/";
  }

  private ValidatableResponse ask(String question, String value) {
    return ruth.request().queryParam("value", value).get(path + question).then();
  }

  @Test
  void placementTellsWhatARuleCannotPass() {
    ruth.request()
        .get(path + "b/placement")
        .then()
        .statusCode(200)
        .body("place", equalTo(1))
        .body("places", equalTo(3))
        .body("decidesAll", equalTo(0))
        .body("complete", is(true))
        .body("blocking.rule", contains("a"))
        .body("blocking.position", contains(0))
        .body("blocking[0].verdict", equalTo("drop"))
        .body("blocking[0].witness", containsString("tcp/443"));
    ruth.request()
        .get(path + "c/placement")
        .then()
        .body("decidesAll", equalTo(2))
        .body("blocking", empty());
    ruth.request().get(path + "none/placement").then().statusCode(404);
  }

  @Test
  void twoRulesSideBySideTellWhatTheyShare() {
    ruth.request()
        .get(path + "b/beside/a")
        .then()
        .statusCode(200)
        .body("upper", equalTo("a"))
        .body("lower", equalTo("b"))
        .body("complete", is(true))
        .body("shared[0].what", hasItem("service tcp/443"))
        .body("shared[0].verdict", equalTo("drop"))
        .body("shared[0].rule", equalTo("a"))
        .body("shared[0].witness", containsString("tcp/443"))
        .body("upperAlone.verdict", everyItem(equalTo("drop")))
        .body("lowerAlone", empty());
    ruth.request().get(path + "b/beside/c").then().body("shared", empty());
    ruth.request().get(path + "b/beside/none").then().statusCode(404);
  }

  @Test
  void objectsAreFoundByWhatTheyHold() {
    String[] edits = {
      "{\"kind\": \"putAddress\", \"object\": {\"name\": \"Quay\", \"members\": [\"10.4.0.0/16\"]}}",
      "{\"kind\": \"putAddress\", \"object\": {\"name\": \"Port\", \"members\": [\"Quay\", \"10.9.0.1\"]}}",
      "{\"kind\": \"putService\", \"object\": {\"name\": \"Web\", \"members\": [\"tcp/80\", \"tcp/443\"]}}"
    };
    for (int version = 0; version < edits.length; version++) {
      ruth.edit(id, version, edits[version]).then().statusCode(200);
    }
    String holding = "../objects/holding"; // beside the rules
    ask(holding, "10.4.3.7").statusCode(200).body("name", contains("Quay", "Port"));
    ask(holding, "10.4.0.0/15").body("name", empty());
    ask(holding, "tcp/443").body("kind", contains("service")).body("name", contains("Web"));
    ask(holding, "2001:db8::1").body("name", empty());
    ask(holding, "Quay").statusCode(422);
    ask(holding, "tcp/x").statusCode(422);
  }

  @Test
  void anEditTellsItsEffectBeforeItIsMade() {
    String effect = path.replace("rules/", "effect");
    ruth.request()
        .body("{\"kind\": \"deleteRules\", \"ids\": [\"a\"]}")
        .post(effect)
        .then()
        .statusCode(200)
        .body("complete", is(true))
        .body("verdicts.before", contains("drop", "drop")) // IPv4 and IPv6
        .body("verdicts.after", contains("allow", "allow"))
        .body("verdicts[0].witness", containsString("tcp/443"));
    ruth.request()
        .body("{\"kind\": \"moveRules\", \"ids\": [\"c\"], \"place\": {\"above\": \"a\"}}")
        .post(effect)
        .then()
        .statusCode(200)
        .body("verdicts", empty());
    ruth.request()
        .body("{\"kind\": \"deleteCheck\", \"name\": \"None\"}")
        .post(effect)
        .then()
        .statusCode(422);
    ruth.request()
        .body("{\"kind\": \"deleteRules\", \"ids\": [\"gone\"]}")
        .post(effect)
        .then()
        .statusCode(409);
  }

  @Test
  void rulesAreFoundByWhatTheyMatch() {
    ask("matching/service", "tcp/443").statusCode(200).body("rules", contains("a", "b"));
    ask("matching/service", "tcp/80").body("rules", contains("a"));
    ask("matching/service", "udp/50-60").body("rules", contains("c"));
    ask("matching/address", "10.4.2.9").body("rules", contains("a", "b", "c"));
    ask("matching/address", "10.4.2.")
        .statusCode(422)
        .body("faults[0].path", equalTo("character 8"));
    ask("matching/service", "tcp/x").statusCode(422);
    ask("matching/service", "None").statusCode(422);
    ask("matching/address", "Nowhere")
        .statusCode(422)
        .body("faults[0].expected", equalTo("a known address"));
    ruth.request().get(path + "matching/address").then().statusCode(422);
  }
}
