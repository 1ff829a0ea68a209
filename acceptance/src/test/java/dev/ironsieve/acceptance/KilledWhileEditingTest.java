package dev.ironsieve.acceptance;

import static org.assertj.core.api.Assertions.assertThat;

import com.google.gson.JsonArray;
import com.google.gson.JsonElement;
import com.google.gson.JsonObject;
import com.google.gson.JsonParser;
import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpRequest.BodyPublishers;
import java.net.http.HttpResponse;
import java.net.http.HttpResponse.BodyHandlers;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.time.Duration;
import java.util.HexFormat;
import java.util.Map;
import java.util.Random;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.BooleanSupplier;
import org.junit.jupiter.api.Test;

/**
 * Kills the server at random instants while a client edits and publishes. The system property
 * {@code kills} sets the number of kills.
 */
class KilledWhileEditingTest {
  private static final int KILLS = Integer.getInteger("kills", 200) * 4 / 100;
  private static final int BETWEEN_PUBLISHES = 4; // edits
  private static final Duration PATIENCE = Duration.ofMinutes(3);
  private static final String RULEBASE = "/api/rulebases/4"; // a small one of the demo
  private static final String RULE = "v02";

  private final HttpClient http = HttpClient.newHttpClient();
  private final Map<Long, String> edits = new ConcurrentHashMap<>(); // names by version
  private final Map<Integer, String> revisions = new ConcurrentHashMap<>(); // names by number
  private volatile boolean editing = true;
  private String address;
  private String cookie;

  private HttpResponse<String> send(String method, String path, String body)
      throws IOException, InterruptedException {
    HttpRequest.Builder request =
        HttpRequest.newBuilder(URI.create(address + path))
            .timeout(PATIENCE)
            .header("Content-Type", "application/json")
            .header("X-Iron-Sieve", "test")
            .method(method, body == null ? BodyPublishers.noBody() : BodyPublishers.ofString(body));
    if (cookie != null) {
      request.header("Cookie", cookie);
    }
    return http.send(request.build(), BodyHandlers.ofString());
  }

  private JsonElement get(String path) throws IOException, InterruptedException {
    HttpResponse<String> answer = send("GET", path, null);
    assertThat(answer.statusCode()).as(path).isEqualTo(200);
    return JsonParser.parseString(answer.body());
  }

  /** Edits and publishes without a pause; what is not acknowledged is not counted. */
  private void edit() {
    int number = 0;
    while (editing) {
      try {
        JsonObject draft = get(RULEBASE + "/draft").getAsJsonObject();
        long version = draft.get("version").getAsLong();
        String name = "edit " + number++;
        String rule =
            "{\"id\": \"%s\", \"name\": \"%s\", \"verdict\": \"reject\"}".formatted(RULE, name);
        HttpResponse<String> edited =
            send(
                "PATCH",
                RULEBASE + "/draft",
                "{\"version\": %d, \"edit\": {\"kind\": \"replaceRules\", \"rules\": [%s]}}"
                    .formatted(version, rule));
        if (edited.statusCode() != 200) {
          continue;
        }
        long now = version(edited);
        edits.put(now, name);
        if (number % BETWEEN_PUBLISHES == 0) {
          HttpResponse<String> published =
              send(
                  "POST",
                  RULEBASE + "/revisions",
                  "{\"version\": %d, \"overrideReason\": \"a test\"}".formatted(now));
          if (published.statusCode() == 200) {
            int revision =
                JsonParser.parseString(published.body()).getAsJsonObject().get("number").getAsInt();
            revisions.put(revision, name);
          }
        }
      } catch (IOException e) {
        // The server is away.
      } catch (InterruptedException e) {
        return;
      }
    }
  }

  private static long version(HttpResponse<String> changed) {
    return JsonParser.parseString(changed.body()).getAsJsonObject().get("version").getAsLong();
  }

  private static String nameIn(JsonObject document) {
    for (JsonElement section : document.getAsJsonArray("sections")) {
      for (JsonElement rule : section.getAsJsonObject().getAsJsonArray("rules")) {
        if (rule.getAsJsonObject().get("id").getAsString().equals(RULE)) {
          return rule.getAsJsonObject().get("name").getAsString();
        }
      }
    }
    return "none";
  }

  @Test
  void everyAcknowledgedEditAndRevisionIsThere() throws Exception {
    long seed = System.nanoTime();
    Random random = new Random(seed);
    try (Server server = new Server("killed_editing", true)) {
      address = server.address();
      HttpResponse<String> in =
          send(
              "POST",
              "/api/session",
              "{\"name\": \"ruth.okell\", \"password\": \"brindlemere-demo\"}");
      cookie = in.headers().firstValue("Set-Cookie").orElseThrow().split(";")[0];
      Thread editor = Thread.ofPlatform().start(this::edit);
      for (int kill = 0; kill < KILLS; kill++) {
        int known = edits.size() + 1 + random.nextInt(3 * BETWEEN_PUBLISHES);
        await(() -> edits.size() >= known);
        Thread.sleep(random.nextInt(300));
        server.kill();
        server.start();
      }
      int published = revisions.size();
      await(() -> revisions.size() > published);
      editing = false;
      editor.join();
      check(server, "seed " + seed);
    }
  }

  private static void await(BooleanSupplier condition) throws InterruptedException {
    long start = System.nanoTime();
    while (!condition.getAsBoolean()) {
      assertThat(System.nanoTime() - start).isLessThan(PATIENCE.toNanos());
      Thread.sleep(10);
    }
  }

  private void check(Server server, String as) throws Exception {
    Map<Long, String> stored = new ConcurrentHashMap<>();
    long before = Long.MAX_VALUE;
    while (true) {
      JsonArray page = get(RULEBASE + "/draft/changes?limit=500&before=" + before).getAsJsonArray();
      if (page.isEmpty()) {
        break;
      }
      for (JsonElement one : page) {
        JsonObject change = one.getAsJsonObject();
        before = change.get("version").getAsLong();
        JsonObject edit = change.getAsJsonObject("edit");
        stored.put(
            before,
            edit.getAsJsonArray("rules").get(0).getAsJsonObject().get("name").getAsString());
      }
    }
    assertThat(edits.size()).as(as).isGreaterThan(KILLS);
    assertThat(stored).as(as).containsAllEntriesOf(edits);
    JsonObject draft = get(RULEBASE + "/draft").getAsJsonObject();
    assertThat(nameIn(draft)).as(as).isEqualTo(stored.get(draft.get("version").getAsLong()));
    assertThat(revisions).as(as).isNotEmpty();
    for (Map.Entry<Integer, String> revision : revisions.entrySet()) {
      JsonObject document = get(RULEBASE + "/revisions/" + revision.getKey()).getAsJsonObject();
      assertThat(nameIn(document)).as(as).isEqualTo(revision.getValue());
    }
    // The digest of every revision fits its document, even if its publish was not acknowledged.
    MessageDigest sha = MessageDigest.getInstance("SHA-256");
    for (JsonElement one : get(RULEBASE + "/revisions").getAsJsonArray()) {
      JsonObject revision = one.getAsJsonObject();
      String content =
          server.text(
              "select content from revision where rulebase_id = 4 and number = "
                  + revision.get("number").getAsInt());
      assertThat(HexFormat.of().formatHex(sha.digest(content.getBytes(StandardCharsets.UTF_8))))
          .as(as)
          .isEqualTo(revision.get("digest").getAsString());
    }
  }
}
