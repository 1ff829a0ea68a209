package dev.ironsieve.server;

import static org.hamcrest.Matchers.contains;
import static org.hamcrest.Matchers.empty;
import static org.hamcrest.Matchers.equalTo;
import static org.hamcrest.Matchers.hasItem;
import static org.hamcrest.Matchers.is;
import static org.hamcrest.Matchers.not;
import static org.hamcrest.Matchers.nullValue;

import io.quarkus.test.junit.QuarkusTest;
import io.restassured.response.ValidatableResponse;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestInfo;

/** Findings are accepted with a reason, and come back when they are others. */
@QuarkusTest
class AcceptedFindingTest {
  private Client ruth;
  private long id;
  private String path;

  @BeforeEach
  void freshRulebase(TestInfo test) {
    ruth = Client.signedIn("ruth.okell");
    id = ruth.rulebase("Accepted of " + test.getDisplayName());
    path = "/api/rulebases/" + id + "/draft/accepted";
  }

  private ValidatableResponse accept(String rule, String kind, String more) {
    return ruth.request()
        .body("{\"rule\": \"%s\", \"kind\": \"%s\"%s}".formatted(rule, kind, more))
        .post(path)
        .then();
  }

  private ValidatableResponse all() {
    return ruth.request().get(path).then().statusCode(200);
  }

  private void rename(long version, String rule, String name, String service) {
    ruth.edit(
            id,
            version,
            """
            {"kind": "replaceRules", "rules": [{"id": "%s", "name": "%s", "verdict": "drop",
             "services": {"items": ["%s"]}}]}
            """
                .formatted(rule, name, service))
        .then()
        .statusCode(200);
  }

  @Test
  void anAcceptedFindingComesBackWhenItsRuleOrACauseChanges() {
    accept("b", "shadowed", ", \"reason\": \"Until the move\", \"askAgain\": \"2999-01-01\"")
        .statusCode(204);
    all()
        .body("rule", contains("b"))
        .body("kind", contains("shadowed"))
        .body("[0].reason", equalTo("Until the move"))
        .body("[0].by", equalTo("Ruth Okell"))
        .body("[0].askAgain", equalTo("2999-01-01"));
    rename(0, "c", "Elsewhere", "udp/53");
    all().body("rule", contains("b"));
    ruth.request()
        .get("/api/rulebases/" + id + "/overview")
        .then()
        .body("findings.error", nullValue());
    rename(1, "a", "A cause", "tcp");
    all().body("rule", empty());
    ruth.request().get("/api/rulebases/" + id + "/overview").then().body("findings.error", is(1));
    ruth.post(id, "undo").then().statusCode(200);
    all().body("rule", contains("b"));
    ruth.request().delete(path + "/b/shadowed").then().statusCode(204);
    all().body("rule", empty());
    ruth.request().delete(path + "/b/shadowed").then().statusCode(404);
  }

  @Test
  void onlyAFindingThatIsThereIsAcceptedWithAReasonAndADayToCome() {
    accept("c", "shadowed", ", \"reason\": \"Because\"").statusCode(409);
    accept("gone", "shadowed", ", \"reason\": \"Because\"").statusCode(409);
    accept("b", "shadowed", "").statusCode(422).body("faults[0].path", equalTo("$.reason"));
    accept("b", "shadowed", ", \"reason\": \" \"").statusCode(422);
    accept("b", "shadowed", ", \"reason\": \"x\", \"askAgain\": \"2001-01-01\"").statusCode(422);
    accept("b", "shadowed", ", \"reason\": \"x\", \"askAgain\": \"soon\"").statusCode(422);
    all().body("rule", empty());
  }

  @Test
  void anAcceptedFindingStopsNoPublish() {
    ruth.edit(
            id,
            0,
            """
            {"kind": "insertRules", "place": {"below": "b"}, "rules": [{"id": "d", "name": "D",
             "verdict": "allow", "services": {"items": ["tcp/80"]}}]}
            """)
        .then()
        .statusCode(200);
    String review = "/api/rulebases/" + id + "/draft/review";
    ruth.request().get(review).then().body("blockers.rule", hasItem("d"));
    accept("d", "shadowed", ", \"reason\": \"Prepared for the move\"").statusCode(204);
    ruth.request()
        .get(review)
        .then()
        .body("blockers.rule", not(hasItem("d")))
        .body("newFindings.rule", hasItem("d"));
  }
}
