package dev.ironsieve.server;

import static io.restassured.RestAssured.given;
import static org.assertj.core.api.Assertions.assertThat;
import static org.hamcrest.Matchers.containsString;
import static org.hamcrest.Matchers.equalTo;
import static org.hamcrest.Matchers.not;

import dev.ironsieve.server.account.Accounts;
import dev.ironsieve.server.jdbc.Database;
import dev.ironsieve.server.jdbc.Sql;
import io.quarkus.test.junit.QuarkusTest;
import io.restassured.http.ContentType;
import io.restassured.http.Cookie;
import io.restassured.response.Response;
import jakarta.inject.Inject;
import java.time.Duration;
import java.time.Instant;
import org.junit.jupiter.api.Test;

@QuarkusTest
class SignInTest {
  @Inject Database database;

  @Inject Accounts accounts;

  @Test
  void accountsOfTheDemoAreOfNoUseOutsideOfIt() {
    Client ines = Client.signedIn("ines.calder");
    accounts.allowDemo(false);
    try {
      signIn("ines.calder", Client.PASSWORD).then().statusCode(401);
      ines.request().get("/api/rulebases").then().statusCode(401);
    } finally {
      accounts.allowDemo(true);
    }
    signIn("ines.calder", Client.PASSWORD).then().statusCode(200);
  }

  private static Response signIn(String name, String password) {
    return Client.anonymous()
        .body("{\"name\": \"" + name + "\", \"password\": \"" + password + "\"}")
        .post("/api/session");
  }

  /** How long a name stays locked from now on. */
  private Duration lockOf(String name) {
    Instant until =
        database.inTransaction(
            "looking at a lock",
            sql ->
                sql.first(
                        "select locked_until from sign_in_failure where name = ?",
                        row -> Sql.instant(row, "locked_until"),
                        name)
                    .orElseThrow());
    return Duration.between(Instant.now(), until);
  }

  /** As if so much time had passed. */
  private void passOverTheLockOf(String name) {
    database.inTransaction(
        "ending a lock",
        sql ->
            sql.change(
                "update sign_in_failure set locked_until = now() - interval '1 second'"
                    + " where name = ?",
                name));
  }

  @Test
  void theCookieIsOutOfReachOfScriptsAndOtherSites() {
    Cookie cookie =
        signIn("ruth.okell", Client.PASSWORD).then().extract().detailedCookie(Client.COOKIE);
    assertThat(cookie.isHttpOnly()).isTrue();
    assertThat(cookie.getSameSite()).isEqualTo("Strict");
    assertThat(cookie.isSecured()).as("secure, over plain HTTP").isFalse();
    assertThat(cookie.getValue()).hasSizeGreaterThan(40);
  }

  @Test
  void signingOutEndsTheSession() {
    Client ines = Client.signedIn("ines.calder");
    ines.request().get("/api/session").then().body("role", equalTo("viewer"));
    ines.request().delete("/api/session").then().statusCode(204);
    ines.request().get("/api/session").then().statusCode(401);
  }

  @Test
  void wrongAndUnknownNamesAreToldApartByNobody() {
    Response wrong = signIn("tomas.wren", "not the password");
    Response unknown = signIn("nobody.here", "not the password");
    assertThat(wrong.statusCode()).isEqualTo(401);
    assertThat(unknown.statusCode()).isEqualTo(401);
    assertThat(unknown.body().asString()).isEqualTo(wrong.body().asString());
    signIn("tomas.wren", Client.PASSWORD).then().statusCode(200);
  }

  @Test
  void repeatedFailuresLockTheNameForAWhileEvenForTheRightPassword() {
    Client odile = Client.signedIn("odile.marsh");
    odile
        .request()
        .body(
            "{\"name\": \"kit.lowe\", \"displayName\": \"Kit Lowe\", \"role\": \"viewer\","
                + " \"password\": \""
                + Client.PASSWORD
                + "\"}")
        .post("/api/accounts")
        .then()
        .statusCode(200);
    for (int i = 0; i < 3; i++) {
      signIn("kit.lowe", "wrong").then().statusCode(401);
    }
    signIn("kit.lowe", Client.PASSWORD)
        .then()
        .statusCode(429)
        .body("detail", containsString("Too many wrong passwords"));
    assertThat(lockOf("kit.lowe")).isBetween(Duration.ofMinutes(13), Duration.ofMinutes(15));
    passOverTheLockOf("kit.lowe");
    signIn("kit.lowe", Client.PASSWORD).then().statusCode(200);
    for (int i = 0; i < 3; i++) {
      signIn("never.was", "wrong").then().statusCode(401);
    }
    signIn("never.was", "wrong").then().statusCode(429);
    assertThat(hasRow("never.was")).as("a row for a name that no account has").isFalse();
    assertThat(hasRow("tomas.wren")).isEqualTo(false);
  }

  private boolean hasRow(String name) {
    return database
        .inTransaction(
            "looking for failures",
            sql -> sql.first("select 1 from sign_in_failure where name = ?", row -> true, name))
        .isPresent();
  }

  @Test
  void changesFromOtherSitesAreRefused() {
    Client ruth = Client.signedIn("ruth.okell");
    String body = "{\"name\": \"From afar\"}";
    ruth.request()
        .header("Sec-Fetch-Site", "cross-site")
        .body(body)
        .post("/api/rulebases")
        .then()
        .statusCode(403);
    ruth.request()
        .header("Origin", "https://evil.example")
        .body(body)
        .post("/api/rulebases")
        .then()
        .statusCode(403);
    given()
        .contentType(ContentType.JSON)
        .cookie(Client.COOKIE, "x")
        .body(body)
        .post("/api/rulebases")
        .then()
        .statusCode(403);
    ruth.request().get("/api/rulebases").then().body(not(containsString("From afar")));
  }

  @Test
  void theLastAdminStaysAndWhoLosesARightLosesTheSession() {
    Client odile = Client.signedIn("odile.marsh");
    odile
        .request()
        .body("{\"role\": \"viewer\"}")
        .patch("/api/accounts/odile.marsh")
        .then()
        .statusCode(409)
        .body("detail", containsString("last admin"));
    odile
        .request()
        .body(
            "{\"name\": \"bo.teal\", \"displayName\": \"Bo Teal\", \"role\": \"editor\","
                + " \"password\": \""
                + Client.PASSWORD
                + "\"}")
        .post("/api/accounts")
        .then()
        .statusCode(200);
    Client bo = Client.signedIn("bo.teal");
    bo.rulebase("Bo's");
    odile
        .request()
        .body("{\"role\": \"viewer\"}")
        .patch("/api/accounts/bo.teal")
        .then()
        .statusCode(200);
    bo.request().get("/api/session").then().statusCode(401);
    odile
        .request()
        .body("{\"disabled\": true}")
        .patch("/api/accounts/bo.teal")
        .then()
        .statusCode(200);
    signIn("bo.teal", Client.PASSWORD).then().statusCode(401);
  }

  @Test
  void aSetUpLinkIsWorthNothingOnceThereAreAccounts() {
    Client.anonymous()
        .body(
            "{\"token\": \"guess\", \"name\": \"eve.lynd\", \"displayName\": \"Eve\","
                + " \"password\": \"long enough for this\"}")
        .post("/api/setup")
        .then()
        .statusCode(403);
  }
}
