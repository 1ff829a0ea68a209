package dev.ironsieve.server;

import static io.restassured.RestAssured.given;

import io.restassured.http.ContentType;
import io.restassured.response.Response;
import io.restassured.specification.RequestSpecification;
import java.util.concurrent.atomic.AtomicInteger;

/** One signed-in person's page, as the server sees it. */
final class Client {
  static final String PASSWORD = "brindlemere-demo";
  static final String COOKIE = "iron_sieve_session";
  static final String HEADER = "X-Iron-Sieve";
  private static final AtomicInteger PAGES = new AtomicInteger();

  private final String cookie;
  private final String page = "page-" + PAGES.incrementAndGet();

  private Client(String cookie) {
    this.cookie = cookie;
  }

  static Client signedIn(String name) {
    return new Client(
        anonymous()
            .body("{\"name\": \"" + name + "\", \"password\": \"" + PASSWORD + "\"}")
            .post("/api/session")
            .then()
            .statusCode(200)
            .extract()
            .cookie(COOKIE));
  }

  /** The secret of the session. */
  String session() {
    return cookie;
  }

  static RequestSpecification anonymous() {
    return given().contentType(ContentType.JSON).header(HEADER, "nobody");
  }

  RequestSpecification request() {
    return given().contentType(ContentType.JSON).header(HEADER, page).cookie(COOKIE, cookie);
  }

  /** A fresh rulebase with rules a (drop all tcp), b (allow tcp/443) and c (allow udp/53). */
  long rulebase(String name) {
    String document =
        """
        {"ironSieve": 1, "name": "any", "zones": [{"name": "inside"}],
         "sections": [{"id": "s", "name": "S", "rules": [
           {"id": "a", "name": "A", "verdict": "drop", "services": {"items": ["tcp"]}},
           {"id": "b", "name": "B", "verdict": "allow", "services": {"items": ["tcp/443"]}},
           {"id": "c", "name": "C", "verdict": "allow", "services": {"items": ["udp/53"]}}]}]}
        """;
    return request()
        .queryParam("name", name)
        .body(document)
        .post("/api/rulebases/import")
        .then()
        .statusCode(200)
        .extract()
        .jsonPath()
        .getLong("id");
  }

  Response edit(long rulebase, long version, String edit) {
    return request()
        .body("{\"version\": " + version + ", \"edit\": " + edit + "}")
        .patch("/api/rulebases/" + rulebase + "/draft");
  }

  Response draft(long rulebase) {
    return request().get("/api/rulebases/" + rulebase + "/draft");
  }

  Response post(long rulebase, String action) {
    return request().post("/api/rulebases/" + rulebase + "/draft/" + action);
  }

  String order(long rulebase) {
    return String.join(
        "", draft(rulebase).jsonPath().<String>getList("sections.rules.flatten().id"));
  }
}
