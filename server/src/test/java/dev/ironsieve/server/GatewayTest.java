package dev.ironsieve.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.hamcrest.Matchers.contains;
import static org.hamcrest.Matchers.containsString;
import static org.hamcrest.Matchers.equalTo;

import io.quarkus.test.junit.QuarkusTest;
import io.restassured.path.json.JsonPath;
import io.restassured.response.Response;
import io.restassured.specification.RequestSpecification;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.util.HexFormat;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestInfo;

/** What gateways ask and report. */
@QuarkusTest
class GatewayTest {
  private Client ruth;
  private Client odile;
  private long id;
  private String name;

  @BeforeEach
  void freshRulebase(TestInfo test) {
    ruth = Client.signedIn("ruth.okell");
    odile = Client.signedIn("odile.marsh");
    name = "Gateway of " + test.getDisplayName();
    id = ruth.rulebase(name);
  }

  private Response add(Client client) {
    return client
        .request()
        .body("{\"name\": \"" + name + "\"}")
        .post("/api/rulebases/" + id + "/gateways");
  }

  private JsonPath gateways() {
    return ruth.request().get("/api/rulebases/" + id + "/gateways").jsonPath();
  }

  private static Response enrol(String token) {
    return Client.anonymous().body("{\"token\": \"" + token + "\"}").post("/api/gateway/enrol");
  }

  private static RequestSpecification gateway(String secret) {
    return Client.anonymous().header("Authorization", "Bearer " + secret);
  }

  private String enrolled() {
    return enrol(add(odile).jsonPath().getString("token")).jsonPath().getString("secret");
  }

  private static Response report(String secret, int revision, String digest, String more) {
    String body = "{\"revision\": %d, \"digest\": \"%s\", %s}".formatted(revision, digest, more);
    return gateway(secret).body(body).post("/api/gateway/report");
  }

  private void publish() {
    String edit = "{\"kind\": \"moveRules\", \"ids\": [\"b\"], \"place\": {\"above\": \"a\"}}";
    ruth.edit(id, 0, edit).then().statusCode(200);
    ruth.request()
        .body("{\"version\": 1}")
        .post("/api/rulebases/" + id + "/revisions")
        .then()
        .statusCode(200);
  }

  @Test
  void aTokenEnrolsOnceAndTheSecretIsTheGatewaysOwn() {
    add(ruth).then().statusCode(403);
    String token = add(odile).then().statusCode(200).extract().jsonPath().getString("token");
    assertThat(gateways().getString("[0].state")).isEqualTo("not enrolled");
    add(odile).then().statusCode(409);
    String secret =
        enrol(token)
            .then()
            .statusCode(200)
            .body("name", equalTo(name))
            .extract()
            .jsonPath()
            .getString("secret");
    enrol(token).then().statusCode(401);
    assertThat(gateways().getString("[0].state")).isEqualTo("waiting");
    gateway(token).get("/api/gateway/desired").then().statusCode(401);
    gateway(secret).get("/api/gateway/desired").then().statusCode(200).body("revision", equalTo(1));
    Client.anonymous().get("/api/gateway/desired").then().statusCode(401);
  }

  @Test
  void itFetchesByDigestReportsAndIsWokenByTheNextRevision() throws Exception {
    String secret = enrolled();
    JsonPath desired = gateway(secret).get("/api/gateway/desired").jsonPath();
    String digest = desired.getString("digest");
    String document =
        gateway(secret).get("/api/gateway/revisions/" + digest).then().extract().asString();
    byte[] sum =
        MessageDigest.getInstance("SHA-256").digest(document.getBytes(StandardCharsets.UTF_8));
    assertThat(HexFormat.of().formatHex(sum)).isEqualTo(digest);
    report(secret, 1, digest, "\"state\": \"fetching\"").then().statusCode(204);
    assertThat(gateways().getString("[0].state")).isEqualTo("fetching");
    report(secret, 1, digest, "\"state\": \"in force\"").then().statusCode(204);
    assertThat(gateways().getString("[0].state")).isEqualTo("in force");
    // Not on the common pool, which the server in this process uses.
    CompletableFuture<Response> poll = new CompletableFuture<>();
    Thread.ofVirtual()
        .start(() -> poll.complete(gateway(secret).get("/api/gateway/desired?has=" + digest)));
    publish();
    JsonPath next = poll.get(20, TimeUnit.SECONDS).jsonPath();
    assertThat(next.getInt("revision")).isEqualTo(2);
    assertThat(gateways().getString("[0].state")).isEqualTo("behind");
    report(secret, 2, next.getString("digest"), "\"state\": \"refused\", \"reason\": \"No room\"")
        .then()
        .statusCode(204);
    assertThat(gateways().getString("[0].state")).isEqualTo("refused");
    assertThat(gateways().getString("[0].reason")).isEqualTo("No room");
    assertThat(gateways().getInt("[0].inForce")).isEqualTo(1);
  }

  @Test
  void whatAGatewayWasNotGivenIsNotTakenFromIt() {
    String secret = enrolled();
    String digest = gateway(secret).get("/api/gateway/desired").jsonPath().getString("digest");
    String other = "0".repeat(64);
    report(secret, 1, other, "\"state\": \"in force\"")
        .then()
        .statusCode(409)
        .body("detail", containsString("no revision 1 with this digest"));
    report(secret, 7, digest, "\"state\": \"in force\"").then().statusCode(409);
    report(secret, 1, "x", "\"state\": \"in force\"").then().statusCode(422);
    report(secret, 1, digest, "\"state\": \"happy\"").then().statusCode(422);
    report(secret, 1, digest, "\"state\": \"refused\", \"reason\": \"" + "x".repeat(301) + "\"")
        .then()
        .statusCode(422);
    gateway(secret).get("/api/gateway/revisions/" + other).then().statusCode(404);
    gateway(secret).get("/api/gateway/revisions/1").then().statusCode(422);
    assertThat(gateways().getString("[0].state")).isEqualTo("waiting");
  }

  @Test
  void aRevokedGatewayGetsNothingMore() {
    String secret = enrolled();
    long gateway = gateways().getLong("[0].id");
    String path = "/api/rulebases/" + id + "/gateways/" + gateway;
    ruth.request().delete(path).then().statusCode(403);
    odile.request().delete("/api/rulebases/999999/gateways/" + gateway).then().statusCode(404);
    odile.request().delete(path).then().statusCode(204);
    odile.request().delete(path).then().statusCode(404);
    gateway(secret).get("/api/gateway/desired").then().statusCode(401);
    ruth.request()
        .get("/api/rulebases/" + id + "/gateways")
        .then()
        .body("state", contains("revoked"));
  }
}
