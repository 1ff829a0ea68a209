package dev.ironsieve.server;

import static org.hamcrest.Matchers.contains;
import static org.hamcrest.Matchers.equalTo;
import static org.hamcrest.Matchers.not;

import io.quarkus.test.junit.QuarkusTest;
import io.restassured.response.Response;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestInfo;

/** Rules as text. */
@QuarkusTest
class RuleTextResourceTest {
  private Client ruth;
  private String path;

  @BeforeEach
  void freshRulebase(TestInfo test) {
    ruth = Client.signedIn("ruth.okell");
    long id = ruth.rulebase("Texts of " + test.getDisplayName());
    path = "/api/rulebases/" + id + "/draft/rules/text";
  }

  private Response read(String text) {
    return ruth.request().body(Map.of("text", text)).post(path);
  }

  @Test
  void rulesAreWrittenAndReadBack() {
    String text = "drop \"A\" service tcp\nallow \"C\" service udp/53";
    ruth.request().get(path + "?id=c&id=a").then().statusCode(200).body("text", equalTo(text));
    read(text + "\n\n")
        .then()
        .statusCode(200)
        .body("rules.name", contains("A", "C"))
        .body("rules[0].id", not(equalTo("a")))
        .body("rules[1].services.items", contains("udp/53"));
  }

  @Test
  void everyFaultHasItsLineAndPlace() {
    read("allow \"A\" to in inside\nallow B\nallow \"C\" log never")
        .then()
        .statusCode(422)
        .body("faults.path", contains("line 2, character 7", "line 3, character 15"))
        .body("faults[1].expected", equalTo("start, end or both"));
    read("\n").then().statusCode(422);
  }
}
