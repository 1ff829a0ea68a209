package dev.ironsieve.server;

import static org.hamcrest.Matchers.containsString;
import static org.hamcrest.Matchers.equalTo;

import io.quarkus.test.junit.QuarkusTest;
import io.restassured.response.Response;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** The limit of rules on a server: at it all works, above it a rulebase is refused unanalysed. */
@QuarkusTest
class LargeRulebaseTest {
  private static final int MOST = 20_000;

  private Client ruth;

  @BeforeEach
  void signIn() {
    ruth = Client.signedIn("ruth.okell");
  }

  /** Asks again where the server has no time now, as the web app does. */
  private static Response patiently(Supplier<Response> request) {
    Response answer = request.get();
    for (int tries = 1; answer.statusCode() == 503 && tries < 6; tries++) {
      answer = request.get();
    }
    return answer;
  }

  private Response imported(String name, int size) {
    String rule =
        "{\"id\": \"r%d\", \"name\": \"R\", \"verdict\": \"drop\","
            + " \"fromAddresses\": {\"items\": [\"10.%d.%d.%d\"]}}";
    String rules =
        IntStream.range(0, size)
            .mapToObj(i -> rule.formatted(i, i >> 16, i >> 8 & 255, i & 255))
            .collect(Collectors.joining(","));
    return ruth.request()
        .queryParam("name", name)
        .body(
            "{\"ironSieve\": 1, \"name\": \"any\", \"zones\": [{\"name\": \"inside\"}],"
                + " \"sections\": [{\"id\": \"s\", \"name\": \"S\", \"rules\": ["
                + rules
                + "]}]}")
        .post("/api/rulebases/import");
  }

  @Test
  void atTheLimitARulebaseIsImportedProbedAndEditedButNotEnlarged() {
    long id =
        patiently(() -> imported("Most rules", MOST))
            .then()
            .statusCode(200)
            .extract()
            .jsonPath()
            .getLong("id");
    patiently(
            () ->
                ruth.request()
                    .body("{\"line\": \"from 10.0.1.7 to 192.0.2.9 tcp/443\"}")
                    .post("/api/rulebases/" + id + "/draft/probe"))
        .then()
        .statusCode(200)
        .body("rule", equalTo("r263"));
    String rule =
        "{\"kind\": \"insertRules\", \"place\": {\"above\": \"r0\"},"
            + " \"rules\": [{\"id\": \"x\", \"name\": \"X\", \"verdict\": \"drop\"}]}";
    patiently(() -> ruth.edit(id, 0, rule))
        .then()
        .statusCode(422)
        .body("faults[0].expected", containsString("at most 20000"));
    ruth.edit(id, 0, "{\"kind\": \"deleteRules\", \"ids\": [\"r5\"]}").then().statusCode(200);
    ruth.edit(id, 1, rule).then().statusCode(200);
  }

  @Test
  void anImportAboveTheLimitIsRefusedWithItsPlace() {
    imported("Too many rules", MOST + 1)
        .then()
        .statusCode(422)
        .body("faults[0].path", equalTo("rules"))
        .body("faults[0].expected", containsString("at most 20000"))
        .body("faults[0].found", equalTo("20001"));
  }
}
