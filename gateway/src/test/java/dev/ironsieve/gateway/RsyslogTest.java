package dev.ironsieve.gateway;

import static org.assertj.core.api.Assertions.assertThat;

import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.formats.syslog.SyslogMessage;
import java.io.IOException;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.net.URI;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Another collector reads the reports: rsyslog, with its own parser of structured data. */
class RsyslogTest {
  private static final Duration PATIENCE = Duration.ofMinutes(3);
  private static final String RECORD = "$!rfc5424-sd!connection@32473!";

  @TempDir Path folder;

  private static int freePort() throws IOException {
    try (ServerSocket socket = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
      return socket.getLocalPort();
    }
  }

  private Process rsyslog(int port, Path out) throws IOException {
    String config =
        """
        global(workDirectory="%1$s" maxMessageSize="8k")
        module(load="imtcp")
        module(load="mmpstrucdata")
        template(name="record" type="list") {
          property(name="hostname") constant(value="|") property(name="msgid") constant(value="|")
          property(name="%2$sgateway") constant(value="|") property(name="%2$sseq")
          constant(value="|") property(name="%2$sverdict") constant(value="|")
          property(name="%2$sto") constant(value="\\n")
        }
        ruleset(name="gateways") {
          action(type="mmpstrucdata")
          action(type="omfile" file="%3$s" template="record")
        }
        input(type="imtcp" address="127.0.0.1" port="%4$d" ruleset="gateways")
        """
            .formatted(folder, RECORD, out, port);
    Path file = Files.writeString(folder.resolve("rsyslog.conf"), config);
    return new ProcessBuilder(
            "/usr/sbin/rsyslogd",
            "-n",
            "-f",
            file.toString(),
            "-i",
            folder.resolve("pid").toString())
        .redirectErrorStream(true)
        .redirectOutput(folder.resolve("rsyslog.log").toFile())
        .start();
  }

  private static void awaitPort(int port) throws InterruptedException {
    Instant end = Instant.now().plus(PATIENCE);
    while (true) {
      try {
        new Socket(InetAddress.getLoopbackAddress(), port).close();
        return;
      } catch (IOException e) {
        assertThat(Instant.now()).as("rsyslog listens").isBefore(end);
        Thread.sleep(50);
      }
    }
  }

  @Test
  void anotherCollectorReadsTheRecords() throws Exception {
    int port = freePort();
    Path out = folder.resolve("records");
    Process rsyslog = rsyslog(port, out);
    SyslogSender sender = new SyslogSender(URI.create("tcp://127.0.0.1:" + port), log -> {});
    Thread thread = Thread.ofPlatform().daemon().unstarted(sender);
    try {
      awaitPort(port);
      thread.start();
      List<SyslogMessage> messages = new ArrayList<>();
      Reports reports = new Reports("North \"terminal\" [1]", "run1", messages::add, flow -> {});
      TrafficPattern pattern =
          new TrafficPattern(
              1,
              "offices 10.1.0.0/24",
              "internet 203.0.113.7",
              List.of("tcp/443"),
              null,
              null,
              false,
              null,
              null,
              "always",
              10,
              1);
      TrafficGenerator generator = new TrafficGenerator(List.of(pattern), 1);
      for (int i = 0; i < 500; i++) {
        Rule rule = i % 2 == 0 ? null : Rule.matchingAll("web", "Web", Verdict.ALLOW);
        reports.start(generator.next(Instant.now()), 3, rule, null);
      }
      messages.forEach(sender);
      Instant end = Instant.now().plus(PATIENCE);
      while (!Files.exists(out) || Files.readAllLines(out).size() < messages.size()) {
        assertThat(Instant.now())
            .as(() -> "rsyslog has all records; it says: " + said())
            .isBefore(end);
        Thread.sleep(50);
      }
      List<String> lines = Files.readAllLines(out);
      for (int i = 0; i < messages.size(); i++) {
        assertThat(lines.get(i))
            .isEqualTo(
                "North_\"terminal\"_[1]|CONNECTION|North \"terminal\" [1]|%d|%s|203.0.113.7"
                    .formatted(i + 1, i % 2 == 0 ? "drop" : "allow"));
      }
    } finally {
      thread.interrupt();
      rsyslog.destroy();
      rsyslog.waitFor();
    }
  }

  private String said() {
    try {
      return Files.readString(folder.resolve("rsyslog.log"));
    } catch (IOException e) {
      return e.toString();
    }
  }
}
