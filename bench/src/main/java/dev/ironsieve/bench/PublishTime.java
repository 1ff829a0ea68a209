package dev.ironsieve.bench;

import com.fasterxml.jackson.databind.JsonNode;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.formats.Digest;
import dev.ironsieve.formats.Json;
import dev.ironsieve.formats.document.FromModel;
import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpRequest.BodyPublishers;
import java.net.http.HttpResponse.BodyHandlers;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HexFormat;
import java.util.List;
import java.util.Locale;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicReference;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** How long a publish takes until every gateway has it, and a review until it is there. */
@Command(
    name = "publish",
    mixinStandardHelpOptions = true,
    description = {
      "Lets many gateways follow a rulebase of a running server of the demo, and measures from",
      "the publish to the last report that it is in force. The gateways fetch the document and",
      "verify its digest; they decide nothing. Then reviews 50 edits of a large draft."
    })
final class PublishTime implements Runnable {
  private static final String PASSWORD = "brindlemere-demo";
  private static final int EDITS = 50;
  private static final double NANOS_PER_SECOND = 1e9;
  private static final int PATIENCE = 120; // seconds

  @Parameters(paramLabel = "ADDRESS", description = "Of the server, such as http://127.0.0.1:8080.")
  private URI server;

  @Option(names = "--gateways", description = "200 if left out.")
  private int gateways = 200;

  @Option(names = "--published", description = "Rules that are published; 1,000 if left out.")
  private int published = 1_000;

  @Option(names = "--rules", description = "In the draft that is reviewed; 10,000 if left out.")
  private int rules = 10_000;

  @Option(names = "--rounds", description = "5 if left out.")
  private int rounds = 5;

  private final AtomicReference<CountDownLatch> waiting = new AtomicReference<>();
  private volatile boolean following = true;
  private HttpClient http;

  @Override
  public void run() {
    try (HttpClient client = HttpClient.newHttpClient();
        ExecutorService threads = Executors.newVirtualThreadPerTaskExecutor()) {
      http = client;
      LoadClient admin = new LoadClient(http, server, "publish bench");
      admin.signIn("odile.marsh", PASSWORD);
      publish(admin, threads);
      review(admin);
      following = false;
      threads.shutdownNow();
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    }
  }

  private static JsonNode json(String text) {
    return Json.read(text.getBytes(StandardCharsets.UTF_8), JsonNode.class);
  }

  private static String open(LoadClient admin, String name, Rulebase rulebase) {
    String document = Json.write(FromModel.rulebase(rulebase));
    String path = "/api/rulebases/import?name=" + name + "-" + System.currentTimeMillis();
    return "/api/rulebases/" + json(admin.post(path, document).expected()).get("id").asLong();
  }

  private void publish(LoadClient admin, ExecutorService threads) throws InterruptedException {
    Rulebase rulebase = new RulebaseGenerator(42, Shape.EASY).rulebase(published);
    String base = open(admin, "published", rulebase);
    waiting.set(new CountDownLatch(gateways));
    for (int i = 0; i < gateways; i++) {
      String name = "{\"name\": \"bench %d %d\"}".formatted(System.currentTimeMillis(), i);
      String token = json(admin.post(base + "/gateways", name).expected()).get("token").asText();
      threads.submit(() -> follow(token));
    }
    await();
    double[] times = new double[rounds];
    for (int round = 0; round < rounds; round++) {
      Rule rule = rulebase.rules().get(round);
      edit(admin, base, round, rule);
      waiting.set(new CountDownLatch(gateways));
      long start = System.nanoTime();
      admin
          .post(
              base + "/revisions",
              "{\"version\": %d, \"overrideReason\": \"bench\"}".formatted(round + 1))
          .expected();
      double stored = (System.nanoTime() - start) / NANOS_PER_SECOND;
      await();
      times[round] = (System.nanoTime() - start) / NANOS_PER_SECOND;
      System.out.printf(
          "round %d: published in %.2f s, in force on %d gateways after %.2f s%n",
          round + 1, stored, gateways, times[round]);
    }
    Arrays.sort(times);
    System.out.printf("median: %.2f s for %d gateways%n", times[rounds / 2], gateways);
  }

  private static void edit(LoadClient admin, String base, long version, Rule rule) {
    Verdict other = rule.verdict() == Verdict.ALLOW ? Verdict.DROP : Verdict.ALLOW;
    String changed = Json.write(FromModel.rule(rule.edit().verdict(other).build()));
    String edit = "{\"kind\": \"replaceRules\", \"rules\": [%s]}".formatted(changed);
    admin
        .patch(base + "/draft", "{\"version\": %d, \"edit\": %s}".formatted(version, edit))
        .expected();
  }

  private void await() throws InterruptedException {
    if (!waiting.get().await(PATIENCE, TimeUnit.SECONDS)) {
      throw new IllegalStateException(
          waiting.get().getCount() + " gateways have it not after " + PATIENCE + " s");
    }
  }

  /** One gateway: enrols, and follows whatever is published. */
  private void follow(String token) {
    try {
      String enrolment = "{\"token\": \"" + token + "\"}";
      String secret = json(send("/api/gateway/enrol", null, enrolment)).get("secret").asText();
      String has = "";
      while (following) {
        JsonNode desired = json(send("/api/gateway/desired?has=" + has, secret, null));
        String digest = desired.get("digest").asText();
        if (digest.equals(has)) {
          continue;
        }
        String document = send("/api/gateway/revisions/" + digest, secret, null);
        if (!HexFormat.of().formatHex(Digest.of(document)).equals(digest)) {
          throw new IllegalStateException("another document than " + digest);
        }
        String report =
            "{\"revision\": %d, \"digest\": \"%s\", \"state\": \"%s\"}"
                .formatted(desired.get("revision").asInt(), digest, "%s");
        send("/api/gateway/report", secret, report.formatted("verified"));
        send("/api/gateway/report", secret, report.formatted("in force"));
        has = digest;
        waiting.get().countDown();
      }
    } catch (IOException e) {
      System.err.println("A gateway stops: " + e.getMessage());
    } catch (InterruptedException stop) {
      Thread.currentThread().interrupt();
    }
  }

  private String send(String path, String secret, String body)
      throws IOException, InterruptedException {
    HttpRequest.Builder request =
        HttpRequest.newBuilder(server.resolve(path)).header("Content-Type", "application/json");
    if (secret != null) {
      request.header("Authorization", "Bearer " + secret);
    }
    if (body != null) {
      request.header("X-Iron-Sieve", "gateway").POST(BodyPublishers.ofString(body));
    }
    var answer = http.send(request.build(), BodyHandlers.ofString());
    if (answer.statusCode() / 100 != 2) {
      throw new IOException(answer.statusCode() + ": " + answer.body());
    }
    return answer.body();
  }

  private void review(LoadClient admin) {
    for (Shape shape : Shape.values()) {
      Rulebase rulebase = new RulebaseGenerator(42, shape).rulebase(rules);
      String base = open(admin, "reviewed", rulebase);
      for (int i = 0; i < EDITS; i++) {
        edit(admin, base, i, rulebase.rules().get(i * (rules / EDITS)));
      }
      List<Double> times = new ArrayList<>();
      int boxes = 0;
      for (int round = 0; round < rounds; round++) {
        long start = System.nanoTime();
        boxes = json(admin.get(base + "/draft/review").expected()).get("verdicts").size();
        times.add((System.nanoTime() - start) / NANOS_PER_SECOND);
      }
      times.sort(null);
      System.out.printf(
          "review of %d edits at %d rules (%s): median %.2f s (%.2f to %.2f), %d boxes%n",
          EDITS,
          rules,
          shape.name().toLowerCase(Locale.ROOT),
          times.get(rounds / 2),
          times.getFirst(),
          times.getLast(),
          boxes);
    }
  }
}
