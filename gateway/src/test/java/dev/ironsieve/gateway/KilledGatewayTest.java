package dev.ironsieve.gateway;

import static org.assertj.core.api.Assertions.assertThat;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import dev.ironsieve.formats.Digest;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.Executors;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/**
 * The process of a gateway, killed at random instants while one revision follows the other. The
 * system property {@code kills} sets how often all tests of this kind kill together.
 */
class KilledGatewayTest {
  private static final int ROUNDS = Integer.getInteger("kills", 200) * 92 / 100;
  private static final int MOST_LOOKS = 4; // for its desired revision, before it is killed
  private static final int PATIENCE = 60; // seconds

  @TempDir Path data;
  private final Map<Integer, String> digests = new ConcurrentHashMap<>(); // of all revisions
  private final Semaphore looks = new Semaphore(0); // one for each since the last kill
  private volatile int revision;
  private volatile int reported; // in force, by the last report
  private volatile byte[] document;

  /** Publishes the next revision at every look, so that the gateway is always switching. */
  private synchronized byte[] publish() {
    revision++;
    document =
        """
        {"ironSieve": 1, "name": "revision %d", "zones": [{"name": "pier"}],
         "sections": [{"id": "s", "name": "S", "rules": []}]}
        """
            .formatted(revision)
            .getBytes(StandardCharsets.UTF_8);
    String digest = HexFormat.of().formatHex(Digest.of(document));
    digests.put(revision, digest);
    return "{\"revision\": %d, \"digest\": \"%s\"}"
        .formatted(revision, digest)
        .getBytes(StandardCharsets.UTF_8);
  }

  private void answer(HttpExchange exchange) throws IOException {
    String path = exchange.getRequestURI().getPath();
    String body = new String(exchange.getRequestBody().readAllBytes(), StandardCharsets.UTF_8);
    byte[] answer;
    if (path.endsWith("/enrol")) {
      answer = "{\"name\": \"North\", \"secret\": \"hush\"}".getBytes(StandardCharsets.UTF_8);
    } else if (path.endsWith("/desired")) {
      answer = publish();
      looks.release();
    } else if (path.endsWith("/report")) {
      if (body.contains("in force")) {
        reported = Integer.parseInt(body.replaceAll(".*\"revision\":(\\d+).*", "$1"));
      }
      answer = new byte[0];
    } else {
      answer = document;
    }
    exchange.sendResponseHeaders(200, answer.length);
    exchange.getResponseBody().write(answer);
    exchange.close();
  }

  @Test
  void isOnExactlyOneKnownRevisionAfterEveryKill() throws Exception {
    long seed = System.nanoTime();
    Random random = new Random(seed);
    HttpServer http =
        HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
    http.createContext("/api/gateway/", this::answer);
    http.setExecutor(Executors.newVirtualThreadPerTaskExecutor());
    http.start();
    int last = 0;
    try {
      for (int round = 0; round < ROUNDS; round++) {
        String as = "seed %d, round %d".formatted(seed, round);
        looks.drainPermits();
        Process gateway = gateway("http://127.0.0.1:" + http.getAddress().getPort());
        int awaited = random.nextInt(MOST_LOOKS + 1); // none: killed while it starts
        assertThat(looks.tryAcquire(awaited, PATIENCE, TimeUnit.SECONDS)).as(as).isTrue();
        gateway.waitFor(random.nextInt(awaited == 0 ? 500 : 30), TimeUnit.MILLISECONDS);
        assertThat(gateway.isAlive()).as(as).isTrue();
        gateway.destroyForcibly().waitFor();
        int found = checkFolder(as);
        // It looks again only after it switched.
        assertThat(found).as(as).isGreaterThanOrEqualTo(last + Math.max(0, awaited - 1));
        last = found;
      }
    } finally {
      http.stop(0);
    }
    assertThat(last).as("seed %d: switches", seed).isGreaterThan(ROUNDS / 2);
  }

  /** The number in force; its document is there, whole, and what was reported is not newer. */
  private int checkFolder(String as) throws IOException {
    try (Revisions revisions = Revisions.open(data)) {
      if (revisions.inForce().isEmpty()) {
        return 0;
      }
      Revisions.Revision inForce = revisions.inForce().get();
      assertThat(inForce.digest()).as(as).isEqualTo(digests.get(inForce.number()));
      assertThat(HexFormat.of().formatHex(Digest.of(revisions.document(inForce))))
          .as(as)
          .isEqualTo(inForce.digest());
      assertThat(reported).as(as).isLessThanOrEqualTo(inForce.number());
      assertThat(revisions.secret()).as(as).contains("hush");
      return inForce.number();
    }
  }

  private Process gateway(String server) throws IOException {
    return new ProcessBuilder(
            List.of(
                Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                "-Xmx64m",
                "-XX:TieredStopAtLevel=1",
                "-cp",
                System.getProperty("java.class.path"),
                "dev.ironsieve.gateway.Main",
                "--server",
                server,
                "--data",
                data.toString(),
                "--token",
                "one-time"))
        .redirectErrorStream(true)
        .redirectOutput(
            ProcessBuilder.Redirect.appendTo(Path.of("target", "killed-gateway.log").toFile()))
        .start();
  }
}
