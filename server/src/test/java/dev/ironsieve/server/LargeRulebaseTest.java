package dev.ironsieve.server;

import static org.hamcrest.Matchers.containsString;
import static org.hamcrest.Matchers.equalTo;

import io.quarkus.test.junit.QuarkusTest;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;

/** A rulebase that is too large for the memory of the server is refused before it is analysed. */
@QuarkusTest
class LargeRulebaseTest {
  @Test
  void anImportAboveTheLimitIsRefusedWithItsPlace() {
    String rules =
        IntStream.rangeClosed(1, 30_001)
            .mapToObj(
                i ->
                    "{\"id\": \"r"
                        + i
                        + "\", \"name\": \"R\", \"verdict\": \"drop\", \"fromZones\": "
                        + "{\"items\": [\"inside\"]}}")
            .collect(Collectors.joining(","));
    Client.signedIn("ruth.okell")
        .request()
        .queryParam("name", "Too many rules")
        .body(
            "{\"ironSieve\": 1, \"name\": \"any\", \"zones\": [{\"name\": \"inside\"}],"
                + " \"sections\": [{\"id\": \"s\", \"name\": \"S\", \"rules\": ["
                + rules
                + "]}]}")
        .post("/api/rulebases/import")
        .then()
        .statusCode(422)
        .body("faults[0].path", equalTo("rules"))
        .body("faults[0].expected", containsString("at most 30000"))
        .body("faults[0].found", equalTo("30001"));
  }
}
