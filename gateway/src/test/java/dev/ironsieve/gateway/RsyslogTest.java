package dev.ironsieve.gateway;

import static org.assertj.core.api.Assertions.assertThat;

import dev.ironsieve.core.matcher.Stage;
import dev.ironsieve.core.model.DefaultRule;
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
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import java.util.function.Consumer;
import javax.net.SocketFactory;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

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

  /**
   * @param scheme tcp, tls or udp
   */
  private Process rsyslog(String scheme, int port, Path out) throws IOException {
    String tls =
        scheme.equals("tls")
            ? """
              global(DefaultNetstreamDriver="gtls"
                DefaultNetstreamDriverCAFile="%1$s/certificate.pem"
                DefaultNetstreamDriverCertFile="%1$s/certificate.pem"
                DefaultNetstreamDriverKeyFile="%1$s/key.pem")
              """
                .formatted(folder)
            : "";
    String driver =
        scheme.equals("tls")
            ? " StreamDriver.Name=\"gtls\" StreamDriver.Mode=\"1\" StreamDriver.AuthMode=\"anon\""
            : "";
    String module = scheme.equals("udp") ? "imudp" : "imtcp";
    String config =
        tls
            + """
        global(workDirectory="%1$s" maxMessageSize="8k")
        module(load="%5$s"%6$s)
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
        input(type="%5$s" address="127.0.0.1" port="%4$d" ruleset="gateways")
        """
                .formatted(folder, RECORD, out, port, module, driver);
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

  /** A certificate of this machine's loopback, and its key, in PEM files. */
  private void makeCertificate() throws Exception {
    Process openssl =
        new ProcessBuilder(
                ("openssl req -x509 -newkey ec -pkeyopt ec_paramgen_curve:P-256 -nodes -days 2"
                        + " -keyout key.pem -out certificate.pem -subj /CN=collector.example"
                        + " -addext subjectAltName=DNS:localhost,IP:127.0.0.1")
                    .split(" "))
            .directory(folder.toFile())
            .redirectErrorStream(true)
            .redirectOutput(folder.resolve("openssl.log").toFile())
            .start();
    assertThat(openssl.waitFor()).isZero();
  }

  private Consumer<SyslogMessage> sender(URI collector, Thread.Builder thread) throws IOException {
    if (collector.getScheme().equals("udp")) {
      return new SyslogDatagrams(collector, log -> {});
    }
    SocketFactory sockets =
        collector.getScheme().equals("tls")
            ? Collectors.tls(folder.resolve("certificate.pem"))
            : SocketFactory.getDefault();
    SyslogSender sender = new SyslogSender(collector, sockets, log -> {});
    thread.start(sender);
    return sender;
  }

  @Test
  void aCollectorWithAnotherCertificateGetsNothing() throws Exception {
    makeCertificate();
    int port = freePort();
    Path out = folder.resolve("records");
    Process rsyslog = rsyslog("tls", port, out);
    BlockingQueue<String> said = new LinkedBlockingQueue<>();
    SyslogSender sender =
        new SyslogSender(URI.create("tls://127.0.0.1:" + port), Collectors.tls(null), said::add);
    Thread thread = Thread.ofPlatform().daemon().unstarted(sender);
    try {
      awaitPort(port);
      sender.accept(
          new SyslogMessage(16, 6, Instant.now(), "north", "gateway", null, "TEST", List.of(), ""));
      thread.start();
      assertThat(said.poll(PATIENCE.toSeconds(), TimeUnit.SECONDS)).contains("certification path");
      assertThat(out).doesNotExist();
    } finally {
      thread.interrupt();
      rsyslog.destroy();
      rsyslog.waitFor();
    }
  }

  @ParameterizedTest
  @ValueSource(strings = {"tcp", "tls", "udp"})
  void anotherCollectorReadsTheRecords(String scheme) throws Exception {
    makeCertificate();
    int port = freePort();
    Path out = folder.resolve("records");
    Process rsyslog = rsyslog(scheme, port, out);
    ThreadGroup threads = new ThreadGroup("senders");
    try {
      if (scheme.equals("udp")) {
        awaitUdp(port);
      } else {
        awaitPort(port);
      }
      Consumer<SyslogMessage> sender =
          sender(
              URI.create(scheme + "://127.0.0.1:" + port),
              Thread.ofPlatform().daemon().group(threads));
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
      for (int i = 0; i < 100; i++) {
        Rule rule = i % 2 == 0 ? null : Rule.matchingAll("web", "Web", Verdict.ALLOW);
        reports.start(generator.next(Instant.now()), 3, decision(rule), null);
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
      threads.interrupt();
      rsyslog.destroy();
      rsyslog.waitFor();
    }
  }

  /** Waits until a program receives datagrams at a port, as Linux tells. */
  private static void awaitUdp(int port) throws Exception {
    String socket = ":%04X ".formatted(port);
    Instant end = Instant.now().plus(PATIENCE);
    while (!Files.readString(Path.of("/proc/net/udp")).contains(socket)) {
      assertThat(Instant.now()).as("rsyslog listens").isBefore(end);
      Thread.sleep(50);
    }
  }

  private static StagedDecision decision(Rule rule) {
    return new StagedDecision(rule, DefaultRule.verdict(rule), Stage.FIRST_PACKET);
  }

  private String said() {
    try {
      return Files.readString(folder.resolve("rsyslog.log"));
    } catch (IOException e) {
      return e.toString();
    }
  }
}
