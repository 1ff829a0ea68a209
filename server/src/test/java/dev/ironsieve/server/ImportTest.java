package dev.ironsieve.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.hamcrest.Matchers.containsString;
import static org.hamcrest.Matchers.equalTo;

import io.quarkus.test.junit.QuarkusTest;
import io.restassured.response.Response;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

@QuarkusTest
class ImportTest {
  private Client ruth;

  @BeforeEach
  void signIn() {
    ruth = Client.signedIn("ruth.okell");
  }

  private static String quay() throws IOException {
    try (var in = ImportTest.class.getResourceAsStream("/quay-acls.json")) {
      return new String(in.readAllBytes(), StandardCharsets.UTF_8);
    }
  }

  private Response read(String name, String document) {
    return ruth.request().queryParam("name", name).body(document).post("/api/rulebases/import");
  }

  @Test
  void aDocumentOfTheStandardBecomesARulebaseAndGoesOutAgain() throws IOException {
    long id =
        read("Quay", quay())
            .then()
            .statusCode(200)
            .body("rules", equalTo(6))
            .extract()
            .jsonPath()
            .getLong("id");
    ruth.draft(id)
        .then()
        .body("sections.name[0]", equalTo("quay-edge"))
        .body("standings.s1r4.findings[0].kind", equalTo("shadowed"));
    Response out = ruth.request().get("/api/rulebases/" + id + "/draft/rfc8519");
    out.then().body("leftOut.size()", equalTo(0));
    Object document = out.jsonPath().getMap("document");
    long again =
        ruth.request()
            .queryParam("name", "Quay again")
            .body(document)
            .post("/api/rulebases/import")
            .then()
            .statusCode(200)
            .extract()
            .jsonPath()
            .getLong("id");
    ruth.request()
        .body("{\"line\": \"from 10.4.200.1 to 192.0.2.53 tcp/25\"}")
        .post("/api/rulebases/" + again + "/draft/probe")
        .then()
        .body("verdict", equalTo("drop"));
  }

  @Test
  void aFaultyDocumentIsExplainedWithPathsAndNothingIsStored() throws IOException {
    read("Faulty", quay().replace("\"port\": 443", "\"port\": 99999"))
        .then()
        .statusCode(422)
        .body("faults[0].path", containsString("ace[0].matches.tcp.destination-port.port"))
        .body("faults[0].expected", containsString("0 to 65535"))
        .body("faults[0].found", equalTo("99999"));
    read("Faulty", quay().substring(0, 700))
        .then()
        .statusCode(422)
        .body("faults[0].path", containsString("line "));
    read("", quay()).then().statusCode(422).body("faults[0].path", equalTo("name"));
    assertThat(ruth.request().get("/api/rulebases").body().asString()).doesNotContain("Faulty");
  }

  @Test
  void aNameIsGivenOnce() throws IOException {
    read("Twice", quay()).then().statusCode(200);
    read("TWICE", quay()).then().statusCode(409).body("detail", containsString("TWICE"));
  }

  @Test
  void ourOwnDocumentGoesOutAndInAgainUnchanged() throws IOException {
    String harbour = ruth.request().get("/api/rulebases/1/draft/document").body().asString();
    long id =
        read("Harbour copy", harbour).then().statusCode(200).extract().jsonPath().getLong("id");
    String copy = ruth.request().get("/api/rulebases/" + id + "/draft/document").body().asString();
    assertThat(copy.replace("Harbour copy", "Harbour head office")).isEqualTo(harbour);
  }
}
