package dev.ironsieve.gateway;

import static org.assertj.core.api.Assertions.assertThat;

import dev.ironsieve.core.matcher.Stage;
import dev.ironsieve.core.model.DefaultRule;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Verdict;
import java.io.IOException;
import java.net.DatagramSocket;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.concurrent.TimeUnit;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Another collector reads the flows: nfcapd, which stores what nfdump prints. */
class NfdumpTest {
  private static final Duration PATIENCE = Duration.ofMinutes(3);

  @TempDir Path folder;

  private static int freePort() throws IOException {
    try (DatagramSocket socket =
        new DatagramSocket(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0))) {
      return socket.getLocalPort();
    }
  }

  private static TrafficPattern pattern(String from, String to) {
    return new TrafficPattern(
        1, from, to, List.of("tcp/443"), null, null, false, null, null, "always", 10, 1);
  }

  private List<String> flows() throws Exception {
    Process nfdump =
        new ProcessBuilder(
                "nfdump",
                "-q",
                "-R",
                folder.toString(),
                "-6",
                "-o",
                "fmt:%sa|%da|%pr|%dp|%pkt|%byt")
            .redirectErrorStream(true)
            .start();
    String out = new String(nfdump.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
    nfdump.waitFor();
    return out.lines().map(line -> line.replace(" ", "")).filter(l -> l.contains("|")).toList();
  }

  private static StagedDecision decision(Rule rule) {
    return new StagedDecision(rule, DefaultRule.verdict(rule), Stage.FIRST_PACKET);
  }

  @Test
  void anotherCollectorReadsTheFlows() throws Exception {
    int port = freePort();
    Process nfcapd =
        new ProcessBuilder(
                "nfcapd", "-b", "127.0.0.1", "-p", port + "", "-w", folder.toString(), "-t", "2")
            .redirectErrorStream(true)
            .redirectOutput(folder.resolveSibling(folder.getFileName() + ".log").toFile())
            .start();
    IpfixSender sender =
        new IpfixSender(URI.create("udp://127.0.0.1:" + port), 7, System.err::println);
    Thread thread = Thread.ofPlatform().daemon().unstarted(sender);
    try {
      awaitBound(port);
      thread.start();
      Reports reports = new Reports("North", "run1", message -> {}, sender);
      TrafficGenerator four =
          new TrafficGenerator(List.of(pattern("offices 10.1.0.9", "internet 203.0.113.7")), 1);
      TrafficGenerator six =
          new TrafficGenerator(
              List.of(pattern("offices 2001:db8:1::9", "internet 2001:db8:2::7")), 1);
      Rule web = Rule.matchingAll("web", "Web", Verdict.ALLOW);
      for (int i = 0; i < 60; i++) {
        Attempt attempt = (i % 2 == 0 ? four : six).next(Instant.now());
        if (i % 3 == 0) {
          reports.start(attempt, 3, decision(null), null);
        } else {
          reports.start(attempt, 3, decision(web), null);
          reports.end(attempt, 3, decision(web), new Reports.Share(attempt.length().toMillis(), 1));
        }
      }
      Instant end = Instant.now().plus(PATIENCE);
      while (flows().size() < 60) {
        assertThat(Instant.now()).as("nfcapd has all flows").isBefore(end);
        Thread.sleep(200);
      }
      List<String> flows = flows();
      assertThat(flows).hasSize(60);
      assertThat(flows.stream().filter(f -> f.startsWith("10.1.0.9|203.0.113.7|TCP|443|")))
          .hasSize(30);
      assertThat(flows.stream().filter(f -> f.startsWith("2001:db8:1::9|2001:db8:2::7|TCP|443|")))
          .hasSize(30);
      assertThat(flows.stream().filter(flow -> flow.endsWith("|1|60"))).hasSize(20);
    } finally {
      thread.interrupt();
      nfcapd.destroy();
      nfcapd.waitFor(1, TimeUnit.MINUTES);
    }
  }

  /** Waits until nfcapd has opened its UDP port. */
  private static void awaitBound(int port) throws Exception {
    String local = ":%04X ".formatted(port);
    Instant end = Instant.now().plus(PATIENCE);
    while (true) {
      try (Stream<String> lines = Files.lines(Path.of("/proc/net/udp"))) {
        if (lines.anyMatch(line -> line.contains(local))) {
          return;
        }
      }
      assertThat(Instant.now()).as("nfcapd listens").isBefore(end);
      Thread.sleep(50);
    }
  }
}
