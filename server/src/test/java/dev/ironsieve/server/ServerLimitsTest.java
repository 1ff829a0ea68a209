package dev.ironsieve.server;

import static org.assertj.core.api.Assertions.assertThat;

import dev.ironsieve.formats.Json;
import dev.ironsieve.formats.document.LimitDocuments;
import io.quarkus.test.junit.QuarkusTest;
import io.restassured.path.json.JsonPath;
import io.restassured.response.Response;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/** A document at a size limit is stored, opened and edited; one above it is refused whole. */
@QuarkusTest
class ServerLimitsTest {
  private static final int LARGE = 50_000; // rules; LimitsTest tries that many

  static Stream<LimitDocuments.Limit> limits() {
    return LimitDocuments.limits().filter(limit -> limit.most() < LARGE);
  }

  @ParameterizedTest
  @MethodSource("limits")
  void everythingWorksUpToALimitAndOneMoreIsRefused(LimitDocuments.Limit limit) {
    Client ruth = Client.signedIn("ruth.okell");
    Response stored = store(ruth, limit, limit.most());
    assertThat(stored.statusCode()).as(stored.asString()).isEqualTo(200);
    long id = stored.jsonPath().getLong("id");
    JsonPath draft = ruth.draft(id).then().statusCode(200).extract().jsonPath();
    Map<String, Map<String, List<Map<String, String>>>> standings = draft.getMap("standings");
    standings.entrySet().stream()
        .limit(5)
        .forEach(
            standing ->
                standing
                    .getValue()
                    .get("findings")
                    .forEach(finding -> repairs(ruth, id, standing.getKey(), finding)));
    Forgetting.drafts();
    ruth.draft(id).then().statusCode(200);
    Response refused = store(ruth, limit, limit.most() + 1);
    assertThat(refused.statusCode()).as(refused.asString()).isEqualTo(422);
    assertThat(refused.asString()).contains(limit.place()).containsPattern("at most|1 to");
  }

  private static void repairs(Client who, long id, String rule, Map<String, String> finding) {
    who.request()
        .get("/api/rulebases/" + id + "/draft/rules/" + rule + "/repairs/" + finding.get("kind"))
        .then()
        .statusCode(200);
  }

  private static Response store(Client who, LimitDocuments.Limit limit, int size) {
    return who.request()
        .queryParam("name", limit.name() + " " + size)
        .body(Json.write(limit.document().apply(size)))
        .post("/api/rulebases/import");
  }
}
