package dev.ironsieve.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.hamcrest.Matchers.containsString;
import static org.hamcrest.Matchers.equalTo;
import static org.hamcrest.Matchers.greaterThan;
import static org.hamcrest.Matchers.hasItem;
import static org.hamcrest.Matchers.hasItems;
import static org.hamcrest.Matchers.hasSize;
import static org.hamcrest.Matchers.notNullValue;
import static org.hamcrest.Matchers.nullValue;

import io.quarkus.test.junit.QuarkusTest;
import io.restassured.response.Response;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** The signature bench: captures, what is recognised in them, and signatures of one's own. */
@QuarkusTest
class CaptureTest {
  private static final String HEARTBEAT = "{\"client\": \"4b 53 4b 31\"}";
  private Client ruth;

  @BeforeEach
  void signIn() {
    ruth = Client.signedIn("ruth.okell");
  }

  private static byte[] sample() throws IOException {
    try (InputStream in = CaptureTest.class.getResourceAsStream("/samples/harbour.pcap")) {
      return in.readAllBytes();
    }
  }

  private Response bring(byte[] capture) {
    return ruth.request()
        .contentType("application/octet-stream")
        .body(capture)
        .post("/api/captures?name=mine");
  }

  private Response attempt(long capture, String application, String signature) {
    String body =
        "{\"edition\": \"2026-11\", \"application\": \"%s\", \"signature\": %s}"
            .formatted(application, signature);
    return ruth.request().body(body).post("/api/captures/" + capture + "/try");
  }

  @Test
  void theShippedCaptureIsRecognised() {
    ruth.request()
        .get("/api/captures")
        .then()
        .body("name", hasItem("an hour at the harbour"))
        .body("connections", hasItem(39));
    ruth.request()
        .get("/api/captures/1?edition=2026-11")
        .then()
        .statusCode(200)
        .body("connections.size()", equalTo(39))
        .body("connections.application", hasItems("Gullwire: call", "DNS", "Modbus", "NTP", null))
        .body(
            "connections.find { it.application == 'Gullwire: post' }.evidence",
            equalTo(List.of("HTTP host chat.gullwire.example", "HTTP path /post")))
        .body("connections.find { it.application == 'Gullwire: call' }.others", hasItem("TLS"))
        .body("connections[33].application", nullValue())
        .body("connections[34].files[0].kind", equalTo("PDF"))
        .body("connections[35].files[0].kind", equalTo("PE program"))
        .body(
            "connections[35].files[0].evidence",
            equalTo("begins like one, though named invoice.pdf"))
        .body("connections[36].files[0].direction", equalTo("upload"))
        .body("connections[36].files[0].name", equalTo("roster week 49.ods"))
        .body("connections[36].files[0].kind", equalTo("OpenDocument table"))
        .body("connections[37].files[0].kind", equalTo("private key"));
  }

  @Test
  void aSignatureIsTriedBeforeItIsKept() throws IOException {
    long id = bring(sample()).then().statusCode(200).extract().jsonPath().getLong("id");
    attempt(id, "Kiosk heartbeat", HEARTBEAT)
        .then()
        .statusCode(200)
        .body("holds.size()", equalTo(6))
        .body("meant.size()", equalTo(6))
        .body("taken.size()", equalTo(0));
    // Too wide: it would take what other signatures tell.
    attempt(id, "Kiosk heartbeat", "{\"client\": \"53 53 48 2d\", \"services\": [\"tcp/2222\"]}")
        .then()
        .body("taken.size()", equalTo(1));
    attempt(id, "Kiosk heartbeat", "{\"clientPattern\": \"^S\"}")
        .then()
        .body("holds.size()", equalTo(2))
        .body("taken.size()", equalTo(2));
    attempt(id, "Kiosk heartbeat", "{\"speaks\": \"HTTP\"}")
        .then()
        .body("holds.size()", equalTo(8))
        .body("meant.size()", equalTo(0));
  }

  private Response hear(String tap, byte[] piece) {
    return ruth.request()
        .contentType("application/vnd.tcpdump.pcap")
        .body(piece)
        .post("/api/captures/recent?tap=" + tap);
  }

  private long newest() {
    return ruth.request()
        .get("/api/captures")
        .then()
        .body("[0].name", equalTo("recent connections"))
        .body("[0].kind", equalTo("recent"))
        .body("[1].kind", equalTo("sample"))
        .extract()
        .jsonPath()
        .getLong("[0].newest");
  }

  @Test
  void aTapsPiecesMakeTheRecentLog() throws IOException {
    long before = newest();
    byte[] all = sample();
    byte[] none = Arrays.copyOf(all, 24);
    long told =
        hear("quay", all).then().statusCode(200).extract().jsonPath().getLong("connections");
    long later =
        hear("quay", none)
            .then()
            .statusCode(200)
            .body("packets", equalTo(0))
            .extract()
            .jsonPath()
            .getLong("connections");
    assertThat(told + later).isEqualTo(39);
    assertThat(newest()).isEqualTo(before + 39);
    List<Long> mine =
        ruth
            .request()
            .get("/api/captures/0?edition=2026-11&upTo=" + (before + 39))
            .then()
            .body("connections[0].at", notNullValue())
            .extract()
            .jsonPath()
            .getList("connections.number", Long.class)
            .stream()
            .filter(number -> number > before)
            .toList();
    assertThat(mine).hasSize(39).isSortedAccordingTo(Comparator.reverseOrder());
    List<Long> holds =
        attempt(0, "Kiosk heartbeat", HEARTBEAT)
            .then()
            .extract()
            .jsonPath()
            .getList("holds", Long.class);
    assertThat(holds).filteredOn(number -> number > before).hasSize(6).isSubsetOf(mine);
    // As it was before nothing of this tap is in it.
    ruth.request()
        .get("/api/captures/0?edition=2026-11&upTo=" + before)
        .then()
        .body("connections[0].number", equalTo((int) before));
  }

  @Test
  void whatIsNoCaptureIsNotHeard() {
    long before = newest();
    hear("quay 2", "tap".repeat(9).getBytes(StandardCharsets.US_ASCII))
        .then()
        .statusCode(422)
        .body("detail", containsString("pcap or pcapng"));
    hear("q".repeat(61), new byte[0])
        .then()
        .statusCode(422)
        .body("detail", containsString("60 characters"));
    Client.signedIn("ines.calder")
        .request()
        .contentType("application/vnd.tcpdump.pcap")
        .body(new byte[24])
        .post("/api/captures/recent")
        .then()
        .statusCode(403);
    assertThat(newest()).isEqualTo(before);
  }

  @Test
  void aMistakeInTheSamplesIsTold() {
    attempt(0, "Kiosk heartbeat", HEARTBEAT).then().body("mistakes", hasSize(0));
    attempt(0, "Kiosk heartbeat", "{\"clientPattern\": \"^S\"}")
        .then()
        .body("mistakes.application", equalTo(List.of("SSH", "SSH")))
        .body("mistakes[0].sample", equalTo("an hour at the harbour"))
        .body("mistakes[0].service", equalTo("tcp/22"))
        .body("mistakes[1].service", equalTo("tcp/2222"));
  }

  @Test
  void aSignatureOfOnesOwnMakesAnEdition() {
    String body = "{\"edition\": \"%s\", \"application\": \"%s\", \"signature\": %s}";
    ruth.request()
        .body(body.formatted("2026-11 with kiosks", "Kiosk heartbeat", HEARTBEAT))
        .post("/api/catalogue/2026-11/signatures")
        .then()
        .statusCode(200)
        .body("applications", equalTo(491));
    ruth.request()
        .get("/api/captures/1?edition=2026-11 with kiosks")
        .then()
        .body("connections.findAll { it.application == 'Kiosk heartbeat' }.size()", equalTo(6));
    ruth.request()
        .body(body.formatted("2026-11 with kiosks", "Gullwire", HEARTBEAT))
        .post("/api/catalogue/2026-11/signatures")
        .then()
        .statusCode(409);
    ruth.request()
        .body(body.formatted("another", "Gullwire", "{\"feature\": \"fly\", \"speaks\": \"TLS\"}"))
        .post("/api/catalogue/2026-11/signatures")
        .then()
        .statusCode(422)
        .body("detail", containsString("the name of one of its features"));
  }

  @Test
  void whatIsNoCaptureOrNoSignatureIsSaidWithItsPlace() throws IOException {
    bring(new byte[] {1, 2, 3, 4, 5})
        .then()
        .statusCode(422)
        .body("detail", containsString("expected pcap or pcapng"));
    byte[] cut = Arrays.copyOf(sample(), 5000);
    long id = bring(cut).then().statusCode(200).extract().jsonPath().getLong("id");
    ruth.request()
        .get("/api/captures/" + id + "?edition=2026-11")
        .then()
        .body("remarks[0]", containsString("is cut off at byte 5000"));
    attempt(id, "X", "{\"client\": \"4b 5\"}")
        .then()
        .statusCode(422)
        .body("detail", containsString("$.signature.client"));
    attempt(id, "X", "{\"services\": [\"tcp/443\"]}")
        .then()
        .statusCode(422)
        .body("detail", containsString("something beside ports"));
    attempt(999, "X", HEARTBEAT).then().statusCode(404);
    ruth.request()
        .body("{\"application\": \"X\", \"signature\": " + HEARTBEAT + "}")
        .post("/api/captures/1/try")
        .then()
        .statusCode(422)
        .body("detail", containsString("$.edition"));
    ruth.request().get("/api/captures/1").then().statusCode(422);
    Client.signedIn("ines.calder")
        .request()
        .contentType("application/octet-stream")
        .body(cut)
        .post("/api/captures")
        .then()
        .statusCode(403);
  }

  @Test
  void anotherEditionsSignaturesAreTriedOnTheKeptCaptures() {
    ruth.request()
        .get("/api/rulebases/1/draft/editions/application/2026-12")
        .then()
        .statusCode(200)
        .body("recognised.size()", greaterThan(0))
        .body("recognised.find { it.from == '10.1.64.14' }.before", equalTo("Moorpost"))
        .body("recognised.find { it.from == '10.1.64.14' }.after", equalTo("Moorpost: view"));
  }
}
