package dev.ironsieve.gateway;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.text.ConnectionLine;
import dev.ironsieve.formats.Digest;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HexFormat;
import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** A gateway against a server of the test. */
class GatewayTest {
  @TempDir Path data;
  private final List<String> reports = new CopyOnWriteArrayList<>();
  private final List<String> log = new ArrayList<>();
  private HttpServer http;
  private int revision = 1;
  private byte[] document = document("allow");
  private byte[] sent; // null: the document itself
  private boolean down;

  private static byte[] document(String verdict) {
    return """
        {"ironSieve": 1, "name": "quay", "zones": [{"name": "pier"}],
         "sections": [{"id": "s", "name": "S", "rules": [
           {"id": "r", "name": "R", "verdict": "%s", "services": {"items": ["tcp/443"]}}]}]}
        """
        .formatted(verdict)
        .getBytes(StandardCharsets.UTF_8);
  }

  private static String digest(byte[] content) {
    return HexFormat.of().formatHex(Digest.of(content));
  }

  @BeforeEach
  void serve() throws IOException {
    http = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
    http.createContext("/api/gateway/", this::answer);
    http.start();
  }

  @AfterEach
  void stop() {
    http.stop(0);
  }

  private void answer(HttpExchange exchange) throws IOException {
    String path = exchange.getRequestURI().getPath();
    String body = new String(exchange.getRequestBody().readAllBytes(), StandardCharsets.UTF_8);
    boolean trusted =
        path.endsWith("/enrol")
            ? body.contains("\"one-time\"")
            : "Bearer hush".equals(exchange.getRequestHeaders().getFirst("Authorization"));
    byte[] answer =
        switch (path.substring("/api/gateway/".length())) {
          case "enrol" -> bytes("{\"name\": \"North\", \"secret\": \"hush\"}");
          case "desired" ->
              bytes("{\"revision\": %d, \"digest\": \"%s\"}".formatted(revision, digest(document)));
          case "report" -> bytes("");
          default -> sent == null ? document : sent;
        };
    if (path.endsWith("/report") && trusted && !down) {
      reports.add(body.replaceAll("\"digest\":\"[0-9a-f]*\"", "…"));
    }
    exchange.sendResponseHeaders(down ? 503 : trusted ? 200 : 401, answer.length);
    exchange.getResponseBody().write(answer);
    exchange.close();
  }

  private static byte[] bytes(String text) {
    return text.getBytes(StandardCharsets.UTF_8);
  }

  private Gateway gateway(Revisions revisions) {
    URI address = URI.create("http://127.0.0.1:" + http.getAddress().getPort());
    return new Gateway(new ServerLink(address), revisions, log::add, inForce -> {});
  }

  private static String decision(Gateway gateway) {
    Rulebase any = Rulebase.empty("any");
    return gateway
        .matcher()
        .orElseThrow()
        .decide(ConnectionLine.parse("tcp/443", any))
        .map(rule -> rule.verdict().word())
        .orElse("default");
  }

  @Test
  void itEnrolsAndPutsTheNewestRevisionInForce() throws Exception {
    try (Revisions revisions = Revisions.open(data)) {
      Gateway gateway = gateway(revisions);
      assertThatThrownBy(() -> gateway.start(null)).hasMessageContaining("--token");
      assertThatThrownBy(() -> gateway.start("wrong")).hasMessageContaining("401");
      gateway.start("one-time");
      assertThat(gateway.matcher()).isEmpty();
      gateway.follow();
      assertThat(decision(gateway)).isEqualTo("allow");
      assertThat(reports)
          .containsExactly(
              "{\"revision\":1,…,\"state\":\"fetching\"}",
              "{\"revision\":1,…,\"state\":\"verified\"}",
              "{\"revision\":1,…,\"state\":\"in force\"}");
      gateway.follow();
      assertThat(reports).hasSize(3);
      revision = 2;
      document = document("drop");
      gateway.follow();
      assertThat(decision(gateway)).isEqualTo("drop");
    }
  }

  @Test
  void afterARestartTheLastGoodRevisionDecidesWhileTheServerIsAway() throws Exception {
    try (Revisions revisions = Revisions.open(data)) {
      Gateway gateway = gateway(revisions);
      gateway.start("one-time");
      gateway.follow();
    }
    reports.clear();
    down = true;
    try (Revisions revisions = Revisions.open(data)) {
      Gateway again = gateway(revisions);
      again.start(null);
      assertThat(decision(again)).isEqualTo("allow");
      again.follow();
      assertThat(log).last().asString().contains("503", "trying again in 250 ms");
      assertThat(reports).isEmpty();
      down = false;
      again.follow();
      assertThat(reports).containsExactly("{\"revision\":1,…,\"state\":\"in force\"}");
    }
  }

  @Test
  void aDocumentThatIsNotTheOneThatItShouldBeIsRefusedAndTheLastOneStays() throws Exception {
    try (Revisions revisions = Revisions.open(data)) {
      Gateway gateway = gateway(revisions);
      gateway.start("one-time");
      gateway.follow();
      revision = 2;
      document = document("drop");
      sent = document("reject");
      gateway.follow();
      assertThat(decision(gateway)).isEqualTo("allow");
      assertThat(reports).last().asString().contains("refused", "The digest does not match");
      int before = reports.size();
      gateway.follow();
      assertThat(reports).as("not tried again").hasSize(before);
      sent = null;
      revision = 3;
      document = bytes("{\"ironSieve\": 1, \"name\": \"quay\", \"zones\": 7}");
      gateway.follow();
      assertThat(decision(gateway)).isEqualTo("allow");
      assertThat(reports).last().asString().contains("refused", "not understood");
      revision = 4;
      document = document("drop");
      gateway.follow();
      assertThat(decision(gateway)).isEqualTo("drop");
    }
  }

  @Test
  void whateverIsLeftOfAWriteThatWasCutOffNothingIsLost() throws Exception {
    try (Revisions revisions = Revisions.open(data)) {
      Gateway gateway = gateway(revisions);
      gateway.start("one-time");
      gateway.follow();
      assertThatThrownBy(() -> Revisions.open(data)).hasMessageContaining("another gateway");
    }
    Files.writeString(data.resolve("in-force.new"), "2 abc");
    Files.writeString(data.resolve("f".repeat(64) + ".json"), "{");
    try (Revisions revisions = Revisions.open(data)) {
      Gateway gateway = gateway(revisions);
      gateway.start(null);
      assertThat(decision(gateway)).isEqualTo("allow");
      revision = 2;
      document = document("drop");
      gateway.follow();
      assertThat(decision(gateway)).isEqualTo("drop");
    }
    try (var files = Files.list(data)) {
      assertThat(files.filter(file -> file.toString().endsWith(".json"))).hasSize(2);
    }
    Files.writeString(data.resolve("in-force"), "two");
    try (Revisions revisions = Revisions.open(data)) {
      Gateway gateway = gateway(revisions);
      assertThatThrownBy(() -> gateway.start(null))
          .hasMessageContaining("expected a number and a digest, found \"two\"");
    }
  }
}
