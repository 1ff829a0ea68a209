package dev.ironsieve.acceptance;

import static org.assertj.core.api.Assertions.assertThat;

import com.google.gson.JsonObject;
import com.google.gson.JsonParser;
import com.microsoft.playwright.APIRequestContext;
import com.microsoft.playwright.Page;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.Random;
import java.util.function.BooleanSupplier;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** The server is killed at random moments while a gateway reports; each record is stored once. */
class KilledServerTest {
  private static final int KILLS = Integer.getInteger("kills", 200) * 4 / 100;
  private static final Duration PATIENCE = Duration.ofMinutes(3);

  /** Connections that the default rule refuses, which always logs. */
  private static final String TRAFFIC =
      """
      [{"weight": 1, "from": "partners 10.60.9.0/24", "to": "operations 10.20.0.0/20",
        "services": ["tcp/1"], "hours": "always", "kilobytes": 1, "seconds": 1}]
      """;

  @TempDir Path folder;

  private static String token(Page admin) {
    String answer =
        admin
            .request()
            .post(
                "/api/rulebases/1/gateways",
                Browser.request()
                    .setHeader("X-Iron-Sieve", "test")
                    .setHeader("Content-Type", "application/json")
                    .setData("{\"name\": \"Outpost\"}"))
            .text();
    return JsonParser.parseString(answer).getAsJsonObject().get("token").getAsString();
  }

  private static JsonObject run(APIRequestContext request) {
    String state = request.get("/api/rulebases/1/log/state", Browser.request()).text();
    var runs = JsonParser.parseString(state).getAsJsonObject().getAsJsonArray("runs");
    return runs.isEmpty() ? null : runs.get(0).getAsJsonObject();
  }

  private static void await(BooleanSupplier condition) throws InterruptedException {
    Instant end = Instant.now().plus(PATIENCE);
    while (!condition.getAsBoolean()) {
      assertThat(Instant.now()).as("in time").isBefore(end);
      Thread.sleep(100);
    }
  }

  private static long stored(APIRequestContext request) {
    JsonObject run = run(request);
    return run == null ? 0 : run.get("stored").getAsLong();
  }

  @Test
  void everyRecordIsStoredOnceThoughTheServerIsKilled() throws Exception {
    long seed = System.nanoTime();
    Random random = new Random(seed);
    Path traffic = Files.writeString(folder.resolve("traffic.json"), TRAFFIC);
    try (Server server = new Server("killed", true);
        Browser browser = new Browser()) {
      Page admin = browser.signedIn(server.address(), "odile.marsh");
      APIRequestContext request = admin.request();
      GatewayProcess gateway =
          new GatewayProcess(
              server,
              folder.resolve("gateway"),
              "--token",
              token(admin),
              "--name",
              "Outpost",
              "--traffic",
              traffic.toString(),
              "--rate",
              "200",
              "--syslog",
              "tcp://127.0.0.1:" + server.logPort());
      try (gateway) {
        for (int kill = 0; kill < KILLS; kill++) {
          long before = stored(request);
          await(() -> stored(request) > before + 20);
          Thread.sleep(random.nextInt(700));
          server.kill();
          server.start();
        }
        long before = stored(request);
        await(() -> stored(request) > before + 500); // so that all that waited has come
      }
      String as = "seed " + seed;
      assertThat(run(request).get("lost").getAsLong()).as(as).isZero();
      assertThat(run(request).get("repeated").getAsLong()).as(as).isPositive();
      long records = server.count("select count(*) from log_record");
      long numbers = server.count("select count(distinct number) from log_record");
      assertThat(numbers).as(as).isEqualTo(records);
      // Each connection is one record, and one hit with the next report, every three seconds.
      long hits = server.count("select sum(connections) from rule_hit_total");
      assertThat(hits).as(as).isBetween(1L, records);
    }
  }
}
