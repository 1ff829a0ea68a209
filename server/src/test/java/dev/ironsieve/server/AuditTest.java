package dev.ironsieve.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.hamcrest.Matchers.containsString;
import static org.hamcrest.Matchers.startsWith;

import io.quarkus.test.junit.QuarkusTest;
import io.restassured.path.json.JsonPath;
import jakarta.inject.Inject;
import java.sql.Connection;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.List;
import java.util.UUID;
import javax.sql.DataSource;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** What the audit trail records, and that nothing takes it back. */
@QuarkusTest
class AuditTest {
  @Inject DataSource database;

  private Client odile;
  private Client ruth;

  @BeforeEach
  void signIn() {
    odile = Client.signedIn("odile.marsh");
    ruth = Client.signedIn("ruth.okell");
  }

  private JsonPath find(String text) {
    return odile.request().queryParam("text", text).get("/api/audit").jsonPath();
  }

  @Test
  void signInsAndAccountsAreRecordedAlsoFailedOnes() {
    String name = "u" + UUID.randomUUID().toString().substring(0, 8);
    String account =
        """
        {"name": "%s", "displayName": "New one", "role": "editor", "password": "long enough 1"}
        """
            .formatted(name);
    odile.request().body(account).post("/api/accounts").then().statusCode(200);
    odile.request().body("{\"role\": \"viewer\"}").patch("/api/accounts/" + name);
    String signIn = "{\"name\": \"" + name + "\", \"password\": \"%s\"}";
    Client.anonymous().body(signIn.formatted("wrong")).post("/api/session").then().statusCode(401);
    String session =
        Client.anonymous()
            .body(signIn.formatted("long enough 1"))
            .post("/api/session")
            .cookie("iron_sieve_session");
    Client.anonymous()
        .cookie("iron_sieve_session", session)
        .delete("/api/session")
        .then()
        .statusCode(204);
    JsonPath found = find(name);
    assertThat(found.getList("action", String.class))
        .containsExactly(
            "sign out", "sign in", "sign in failed", "account changed", "account added");
    assertThat(found.getList("who", String.class))
        .containsExactly(name, name, name, "odile.marsh", "odile.marsh");
    assertThat(found.getString("[3].detail")).isEqualTo("role viewer");
    assertThat(found.getList("address", String.class)).containsOnly("127.0.0.1");
    assertThat(
            odile
                .request()
                .queryParam("text", name)
                .queryParam("action", "sign in failed")
                .get("/api/audit")
                .jsonPath()
                .getList("id"))
        .hasSize(1);
  }

  @Test
  void aNameThatNobodyHasIsRecordedAsItWasTried() {
    String name = "nobody" + UUID.randomUUID().toString().substring(0, 8);
    Client.anonymous()
        .body("{\"name\": \"" + name + "\", \"password\": \"x\"}")
        .post("/api/session")
        .then()
        .statusCode(401);
    assertThat(find(name).getString("[0].detail")).isEqualTo("no such account");
  }

  @Test
  void publishingAndGatewaysAreRecorded() {
    String name = "Audit " + UUID.randomUUID().toString().substring(0, 8);
    long id = ruth.rulebase(name);
    odile
        .request()
        .body("{\"name\": \"" + name + "\"}")
        .post("/api/rulebases/" + id + "/gateways")
        .then()
        .statusCode(200);
    ruth.edit(id, 0, "{\"kind\": \"deleteRules\", \"ids\": [\"a\"]}").then().statusCode(200);
    ruth.request()
        .body("{\"version\": 1, \"note\": \"Open the web\"}")
        .post("/api/rulebases/" + id + "/revisions")
        .then()
        .statusCode(200);
    JsonPath found = find(name);
    assertThat(found.getList("action", String.class)).containsExactly("published", "gateway added");
    assertThat(found.getString("[0].who")).isEqualTo("ruth.okell");
    assertThat(found.getString("[0].subject")).isEqualTo(name + ", revision 2");
    assertThat(found.getString("[0].detail")).isEqualTo("Open the web");
  }

  @Test
  void feedsAreRecorded() {
    String name = "Feed " + UUID.randomUUID().toString().substring(0, 8);
    String settings =
        """
        {"everyMinutes": 60, "mostBytes": 1000, "mostPercent": 50}""";
    odile
        .request()
        .body(
            "{\"name\": \"%s\", \"kind\": \"addresses\", \"settings\": %s}"
                .formatted(name, settings))
        .post("/api/feeds")
        .then()
        .statusCode(204);
    odile
        .request()
        .body("{\"settings\": " + settings + "}")
        .put("/api/feeds/" + name)
        .then()
        .statusCode(204);
    odile.request().delete("/api/feeds/" + name).then().statusCode(204);
    assertThat(find(name).getList("action", String.class))
        .containsExactly("feed removed", "feed changed", "feed added");
  }

  @Test
  void onlyAdminsReadAndExportIt() {
    for (String path : List.of("/api/audit", "/api/audit/export")) {
      ruth.request().get(path).then().statusCode(403);
      Client.anonymous().get(path).then().statusCode(401);
    }
    odile
        .request()
        .get("/api/audit/export")
        .then()
        .statusCode(200)
        .contentType("text/csv")
        .body(startsWith("id,at,who,address,action,subject,detail"))
        .body(containsString("odile.marsh,127.0.0.1,sign in"));
    odile.request().get("/api/audit?limit=0").then().statusCode(422);
    odile.request().get("/api/audit?action=guessed").then().statusCode(422);
    long last = odile.request().get("/api/audit?limit=1").jsonPath().getLong("[0].id");
    assertThat(
            odile.request().get("/api/audit?limit=1&behind=" + last).jsonPath().getLong("[0].id"))
        .isLessThan(last);
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "update audit set who = 'somebody else'",
        "delete from audit",
        "truncate audit",
      })
  void noStatementTakesAnEntryBack(String statement) throws SQLException {
    try (Connection connection = database.getConnection();
        Statement sql = connection.createStatement()) {
      assertThatThrownBy(() -> sql.execute(statement))
          .hasMessageContaining("the audit trail is append-only");
    }
  }
}
