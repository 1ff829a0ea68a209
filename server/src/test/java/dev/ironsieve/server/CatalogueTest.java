package dev.ironsieve.server;

import static org.hamcrest.Matchers.containsString;
import static org.hamcrest.Matchers.equalTo;
import static org.hamcrest.Matchers.everyItem;
import static org.hamcrest.Matchers.hasItem;
import static org.hamcrest.Matchers.hasItems;
import static org.hamcrest.Matchers.lessThanOrEqualTo;
import static org.hamcrest.Matchers.not;
import static org.hamcrest.Matchers.notNullValue;
import static org.hamcrest.Matchers.nullValue;
import static org.hamcrest.Matchers.startsWith;

import io.quarkus.test.junit.QuarkusTest;
import io.restassured.response.Response;
import java.util.List;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** Editions of the catalogue: brought in, compared, taken into a draft and taken back. */
@QuarkusTest
class CatalogueTest {
  private Client ruth;

  @BeforeEach
  void signIn() {
    ruth = Client.signedIn("ruth.okell");
  }

  private static String edition(String name, String... applications) {
    StringBuilder out = new StringBuilder();
    for (String application : applications) {
      out.append(out.isEmpty() ? "" : ",").append(application);
    }
    return "{\"ironSieveCatalogue\": 1, \"edition\": \"%s\", \"applications\": [%s]}"
        .formatted(name, out);
  }

  private static String application(String name, String category, String features) {
    return """
        {"name": "%s", "summary": "s", "category": "%s", "risk": 2, "usefulness": 2,
         "features": [%s]}"""
        .formatted(name, category, features);
  }

  private Response bringIn(String document) {
    return ruth.request().body(document).post("/api/catalogue");
  }

  private Response take(long rulebase, long version, String edition) {
    return ruth.request()
        .body("{\"version\": " + version + "}")
        .put("/api/rulebases/" + rulebase + "/draft/editions/application/" + edition);
  }

  private Response effect(long rulebase, String edition) {
    return ruth.request()
        .get("/api/rulebases/" + rulebase + "/draft/editions/application/" + edition);
  }

  @Test
  void anEditionIsTakenIntoADraftAndTakenBack() {
    bringIn(
            edition(
                "take-1",
                application("Gullwire", "chat", "{\"name\": \"post\"}"),
                application("Tern", "games", "")))
        .then()
        .statusCode(200)
        .body("applications", equalTo(2));
    bringIn(
            edition(
                "take-2",
                application("Gullwire", "chat", "{\"name\": \"post\"}, {\"name\": \"call\"}"),
                application("Tern", "chat", "")))
        .then()
        .statusCode(200);
    ruth.request().get("/api/catalogue").then().body("name", hasItems("take-1", "take-2"));
    long id = ruth.rulebase("Takes editions");
    effect(id, "take-1").then().statusCode(409);
    take(id, 0, "take-1").then().statusCode(200);
    ruth.draft(id).then().body("editions.application", equalTo("take-1"));
    String rule =
        """
        {"kind": "insertRules", "place": {"startOf": "s"}, "rules": [{"id": "n", "name": "N",
         "verdict": "allow", "terms": {"application": {"items": ["category chat"]}}}]}""";
    ruth.edit(id, 1, rule).then().statusCode(200);

    effect(id, "take-2")
        .then()
        .statusCode(200)
        .body("added.size()", equalTo(0))
        .body("changed.Tern[0]", equalTo("category from games to chat"))
        .body("rules[0].id", equalTo("n"))
        .body("rules[0].gained", equalTo(List.of("Gullwire: call", "Tern")))
        .body("complete", equalTo(true))
        .body("verdicts.before", not(hasItem("allow")))
        .body("verdicts.after", hasItem("allow"))
        .body("verdicts.afterRule", hasItem("n"));
    ruth.draft(id).then().body("editions.application", equalTo("take-1"));

    take(id, 2, "take-2").then().statusCode(200);
    ruth.draft(id).then().body("editions.application", equalTo("take-2"));
    ruth.post(id, "undo").then().statusCode(200);
    ruth.draft(id).then().body("editions.application", equalTo("take-1"));
    ruth.post(id, "undo");
    ruth.post(id, "undo").then().statusCode(200);
    ruth.draft(id).then().body("editions.application", nullValue());
  }

  @Test
  void tellsWhichRulesCanEverDecideOnAnApplication() {
    ruth.request()
        .get("/api/rulebases/1/draft/applications/{application}", "lanternreel")
        .then()
        .statusCode(200)
        .body("complete", equalTo(true))
        .body("rules.witness", everyItem(containsString("Lanternreel")))
        .body("rules.witness", everyItem(containsString("/443 ")))
        .body("rules[0].ends", notNullValue())
        .body("rules[-1].id", nullValue())
        .body("rules[-1].verdict", equalTo("drop"));
    ruth.request()
        .get("/api/rulebases/1/draft/applications/{application}", "No such thing")
        .then()
        .statusCode(404)
        .body("detail", startsWith("This draft knows no application"));
  }

  @Test
  void anEditionThatForgetsWhatARuleSaysIsRefused() {
    bringIn(edition("forget-1", application("Tern", "games", ""), application("Rook", "x", "")));
    bringIn(edition("forget-2", application("Rook", "x", "")));
    long id = ruth.rulebase("Says Tern");
    take(id, 0, "forget-1");
    String rule =
        """
        {"kind": "insertRules", "place": {"startOf": "s"}, "rules": [{"id": "n", "name": "N",
         "verdict": "drop", "terms": {"application": {"items": ["Tern"]}}}]}""";
    ruth.edit(id, 1, rule).then().statusCode(200);
    effect(id, "forget-2")
        .then()
        .body("rules[0].unknown[0]", equalTo("Tern"))
        .body("verdicts.size()", equalTo(0))
        .body("complete", equalTo(false));
    take(id, 2, "forget-2")
        .then()
        .statusCode(422)
        .body("faults[0].expected", containsString("a known application"));
    ruth.draft(id).then().body("editions.application", equalTo("forget-1"));
  }

  @Test
  void aFaultyOrDoubledEditionIsRefused() {
    bringIn(edition("faulty", application("Tern: x", "games", "")))
        .then()
        .statusCode(422)
        .body("faults[0].path", equalTo("$.applications[0]"));
    ruth.request().get("/api/catalogue/faulty").then().statusCode(404);
    bringIn(edition("twice", application("Tern", "games", ""))).then().statusCode(200);
    bringIn(edition("twice", application("Tern", "games", ""))).then().statusCode(409);
  }

  @Test
  void namesAreCompleted() {
    Response found =
        ruth.request()
            .queryParam("of", "application", "time")
            .queryParam("text", "gullw")
            .get("/api/rulebases/1/draft/terms");
    found
        .then()
        .statusCode(200)
        .body("size()", lessThanOrEqualTo(40))
        .body("[0].name", equalTo("Gullwire"))
        .body("[0].coordinate", equalTo("application"))
        .body("[0].members", equalTo(6));
    ruth.request()
        .queryParam("of", "mood")
        .get("/api/rulebases/1/draft/terms")
        .then()
        .statusCode(422);
  }
}
