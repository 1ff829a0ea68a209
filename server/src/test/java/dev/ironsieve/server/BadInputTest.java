package dev.ironsieve.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.hamcrest.Matchers.equalTo;
import static org.hamcrest.Matchers.notNullValue;

import io.quarkus.test.junit.QuarkusTest;
import io.restassured.response.Response;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** Whatever a client sends, the server answers 4xx with a reason, never 5xx. */
@QuarkusTest
class BadInputTest {
  private static final String EDIT =
      """
      {"version": 0, "edit": {"kind": "batch", "edits": [
        {"kind": "insertRules", "place": {"above": "b"}, "rules": [
          {"id": "x1", "name": "X", "enabled": true, "verdict": "allow", "log": "end", "note": "n",
           "fromZones": {"items": ["inside"], "except": []},
           "fromAddresses": {"items": ["10.0.0.0/8", "2001:db8::/32"]},
           "services": {"items": ["tcp/443"], "except": ["tcp/443 from 1-9"]}}]},
        {"kind": "putAddress", "object": {"name": "hosts", "members": ["10.0.0.1-10.0.0.9"]}},
        {"kind": "moveRules", "ids": ["a"], "place": {"endOf": "s"}},
        {"kind": "renameSection", "id": "s", "name": "T"},
        {"kind": "deleteObject", "objectKind": "address", "name": "hosts"}]}}
      """;

  private Client ruth;

  @BeforeEach
  void signIn() {
    ruth = Client.signedIn("ruth.okell");
  }

  @Test
  void mutatedEditsAreAcceptedOrExplained() {
    long id = ruth.rulebase("Mutations");
    Random random = new Random(8519);
    int refused = 0;
    for (int i = 0; i < 600; i++) {
      String body = mutated(EDIT, random);
      Response answer = ruth.request().body(body).patch("/api/rulebases/" + id + "/draft");
      assertThat(answer.statusCode()).as("%s%n%s", body, answer.body().asString()).isLessThan(500);
      if (answer.statusCode() != 200) {
        refused++;
        assertThat(answer.jsonPath().getString("detail")).as(body).isNotBlank();
      }
    }
    assertThat(refused).isGreaterThan(300);
  }

  @Test
  void mutatedDocumentsAndLinesAreReadOrExplained() throws IOException {
    long id = ruth.rulebase("Lines");
    Random random = new Random(7951);
    String quay;
    try (var in = BadInputTest.class.getResourceAsStream("/quay-acls.json")) {
      quay = new String(in.readAllBytes(), StandardCharsets.UTF_8);
    }
    int refused = 0;
    for (int i = 0; i < 250; i++) {
      String document = mutated(quay, random);
      Response read =
          ruth.request().queryParam("name", "m" + i).body(document).post("/api/rulebases/import");
      assertThat(read.statusCode()).as(document).isIn(200, 400, 422);
      refused += read.statusCode() == 200 ? 0 : 1;
      String line = mutated("from 10.4.2.9 in inside to 2001:db8::1 tcp/443 from port 5", random);
      Response answer =
          ruth.request()
              .body("{\"line\": \"" + line + "\"}")
              .post("/api/rulebases/" + id + "/draft/probe");
      assertThat(answer.statusCode()).as(line).isIn(200, 400, 422);
    }
    assertThat(refused).isGreaterThan(50);
  }

  private static String mutated(String text, Random random) {
    StringBuilder out = new StringBuilder(text);
    List<String> bits =
        List.of(
            "null",
            "0",
            "-1",
            "\"\"",
            "[]",
            "{}",
            "\"",
            "\\u0000",
            "\\ud800",
            "9e999",
            "é",
            "\"a\"",
            ",",
            "}",
            "true",
            "1e400",
            "\"\\n\"",
            "99999999999999999999");
    for (int n = 1 + random.nextInt(3); n > 0; n--) {
      int at = random.nextInt(out.length());
      int end = Math.min(out.length(), at + random.nextInt(12));
      String bit = random.nextInt(3) == 0 ? "" : bits.get(random.nextInt(bits.size()));
      out.replace(at, end, bit);
    }
    return out.toString();
  }

  @Test
  void whatIsMissingOrOfTheWrongTypeIsNamed() {
    long id = ruth.rulebase("Types");
    String draft = "/api/rulebases/" + id + "/draft";
    ruth.request()
        .body("{\"version\": \"x\", \"edit\": {}}")
        .patch(draft)
        .then()
        .statusCode(400)
        .body("faults[0].path", equalTo("$.version"));
    ruth.request()
        .body("{\"version\": 0}")
        .patch(draft)
        .then()
        .statusCode(422)
        .body("faults[0].path", equalTo("$.edit"));
    ruth.request()
        .body("{\"version\": 7, \"edit\": {\"kind\": \"deleteSection\", \"id\": \"s\"}}")
        .patch(draft)
        .then()
        .statusCode(422)
        .body("faults[0].path", equalTo("$.version"));
    ruth.request().body("").patch(draft).then().statusCode(422);
    ruth.request()
        .body("{\"version\": 0, \"edit\": {\"kind\": \"fly\"}}")
        .patch(draft)
        .then()
        .statusCode(422)
        .body("faults[0].expected", equalTo("a known kind of edit"));
    ruth.request()
        .body("{\"lines\": \"x\"}")
        .post(draft + "/probe")
        .then()
        .statusCode(400)
        .body("faults[0].path", equalTo("$.lines"));
    ruth.request()
        .contentType("text/plain")
        .body("x")
        .patch(draft)
        .then()
        .statusCode(415)
        .body("detail", notNullValue());
  }

  @Test
  void addressesThatDoNotExistAreNotFound() {
    ruth.request().get("/api/rulebases/999999/draft").then().statusCode(404);
    ruth.request().get("/api/rulebases/x/draft").then().statusCode(404);
    ruth.request().get("/api/rulebases/99999999999999999999/draft").then().statusCode(404);
    ruth.request().get("/api/rulebases/999999/draft/events").then().statusCode(404);
    ruth.request().get("/api/nothing").then().statusCode(404);
    ruth.request().get("/api/rulebases/1/draft/changes?limit=0").then().statusCode(422);
    ruth.request().get("/api/rulebases/1/draft/changes?before=x").then().statusCode(404);
    ruth.request().delete("/api/rulebases").then().statusCode(405);
  }

  @Test
  void namesThatNoDatabaseCanHoldAreRefusedBefore() {
    for (String name : List.of("a\\u0000b", "\\ud800", "", " ", "x".repeat(101))) {
      ruth.request()
          .body("{\"name\": \"" + name + "\"}")
          .post("/api/rulebases")
          .then()
          .statusCode(422);
      Client.anonymous()
          .body("{\"name\": \"" + name + "\", \"password\": \"" + name + "\"}")
          .post("/api/session")
          .then()
          .statusCode(401);
    }
    Client.anonymous().body("{\"name\": 5}").post("/api/session").then().statusCode(400);
    Client.anonymous().body("{\"token\": \"\\u0000\"}").post("/api/setup").then().statusCode(403);
    Client.anonymous().cookie(Client.COOKIE, "%00").get("/api/session").then().statusCode(401);
  }
}
