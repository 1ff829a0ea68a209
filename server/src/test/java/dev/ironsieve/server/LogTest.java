package dev.ironsieve.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.hamcrest.Matchers.containsString;

import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.sets.Address;
import dev.ironsieve.formats.capture.CaptureWriter;
import dev.ironsieve.formats.ipfix.FlowRecord;
import dev.ironsieve.formats.ipfix.FlowRecord.Event;
import dev.ironsieve.formats.ipfix.IpfixWriter;
import dev.ironsieve.formats.syslog.DecisionRecord;
import dev.ironsieve.formats.syslog.DecisionRecord.Origin;
import dev.ironsieve.formats.syslog.HitRecord;
import dev.ironsieve.formats.syslog.SyslogMessage;
import dev.ironsieve.formats.syslog.SyslogWriter;
import dev.ironsieve.server.log.IpfixListener;
import dev.ironsieve.server.log.SyslogListener;
import io.quarkus.test.junit.QuarkusTest;
import io.restassured.path.json.JsonPath;
import jakarta.inject.Inject;
import java.io.IOException;
import java.io.OutputStream;
import java.net.DatagramPacket;
import java.net.DatagramSocket;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.Socket;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.function.BooleanSupplier;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestInfo;
import org.junit.jupiter.api.io.TempDir;

/** Syslog of gateways comes in over real sockets, and is asked for. */
@QuarkusTest
class LogTest {
  private static final InetAddress LOOPBACK = InetAddress.getLoopbackAddress();
  private static final Duration PATIENCE = Duration.ofMinutes(3);
  private static int tcp; // port
  private static int udp; // port

  @Inject SyslogListener listener;
  @Inject IpfixListener flows;

  private final Instant now = Instant.now().truncatedTo(ChronoUnit.MILLIS);
  private Client ines;
  private long id;
  private String gateway;

  @BeforeEach
  void aRulebaseWithAGateway(TestInfo test) {
    if (tcp == 0) {
      tcp = listener.listenTcp(new InetSocketAddress(LOOPBACK, 0));
      udp = listener.listenUdp(new InetSocketAddress(LOOPBACK, 0));
    }
    ines = Client.signedIn("ines.calder");
    gateway = "Logs of " + test.getDisplayName();
    id = Client.signedIn("ruth.okell").rulebase(gateway);
    add(gateway);
  }

  private void add(String name) {
    Client.signedIn("odile.marsh")
        .request()
        .body("{\"name\": \"" + name + "\"}")
        .post("/api/rulebases/" + id + "/gateways")
        .then()
        .statusCode(200);
  }

  private SyslogMessage decision(long number, String rule, String person, String from) {
    return new DecisionRecord(
            new Origin(gateway, "run", number),
            "end",
            1,
            rule,
            rule == null ? Verdict.DROP : Verdict.ALLOW,
            "c".equals(rule) ? null : "c",
            "c".equals(rule) ? null : Verdict.REJECT,
            now.minusSeconds(60 - number),
            250,
            4,
            1_000,
            "inside",
            Address.parse(from),
            "inside",
            Address.parse("203.0.113.7"),
            6,
            443,
            50_000,
            person,
            null,
            "www.quay.example",
            "Lanternreel: view",
            null,
            "handshake")
        .message(now);
  }

  private SyslogMessage hits(String run, long number, String rule, long connections) {
    return new HitRecord(
            new Origin(gateway, run, number), 1, rule, 4, connections, 2, 1, 10, 2_000, now, now)
        .message(now);
  }

  private static void send(SyslogMessage... messages) throws IOException {
    try (Socket socket = new Socket(LOOPBACK, tcp)) {
      OutputStream out = socket.getOutputStream();
      for (SyslogMessage message : messages) {
        out.write(SyslogWriter.frame(message));
      }
      out.flush();
    }
  }

  @Test
  void recordsArriveOverTls(@TempDir Path folder) throws Exception {
    run(
        folder,
        new byte[0],
        "openssl req -x509 -newkey rsa:2048 -nodes -days 2 -keyout key.pem -out certificate.pem"
            + " -subj /CN=log.example -addext subjectAltName=IP:127.0.0.1");
    int port =
        listener.listenTls(
            new InetSocketAddress(LOOPBACK, 0),
            folder.resolve("certificate.pem"),
            folder.resolve("key.pem"));
    run(
        folder,
        SyslogWriter.frame(decision(1, "c", "maya.lind", "10.0.0.1")),
        "openssl s_client -quiet -no_ign_eof -verify_return_error -CAfile certificate.pem"
            + " -connect 127.0.0.1:"
            + port);
    await(() -> log("").getList("records").size() == 1);
    assertThatThrownBy(
            () ->
                listener.listenTls(
                    new InetSocketAddress(LOOPBACK, 0),
                    folder.resolve("certificate.pem"),
                    folder.resolve("certificate.pem")))
        .hasMessageContaining("expected BEGIN PRIVATE KEY");
  }

  /** Runs a program that must succeed, with bytes as its input. */
  private static void run(Path folder, byte[] input, String command) throws Exception {
    Path in = Files.write(folder.resolve("input"), input);
    Process process =
        new ProcessBuilder(command.split(" "))
            .directory(folder.toFile())
            .redirectInput(in.toFile())
            .redirectErrorStream(true)
            .redirectOutput(folder.resolve("said").toFile())
            .start();
    assertThat(process.waitFor()).as(() -> said(folder)).isZero();
  }

  private static String said(Path folder) {
    try {
      return Files.readString(folder.resolve("said"));
    } catch (IOException e) {
      return e.toString();
    }
  }

  private static void sendText(String text) throws IOException {
    try (Socket socket = new Socket(LOOPBACK, tcp)) {
      socket.getOutputStream().write(text.getBytes(StandardCharsets.UTF_8));
      socket.getOutputStream().flush();
    }
  }

  private JsonPath log(String query) {
    return ines.request().get("/api/rulebases/" + id + "/log" + query).jsonPath();
  }

  private JsonPath state() {
    return ines.request().get("/api/rulebases/" + id + "/log/state").jsonPath();
  }

  private JsonPath hits() {
    return ines.request().get("/api/rulebases/" + id + "/hits").jsonPath();
  }

  private static void await(BooleanSupplier condition) throws InterruptedException {
    Instant end = Instant.now().plus(PATIENCE);
    while (!condition.getAsBoolean()) {
      assertThat(Instant.now()).as("in time").isBefore(end);
      Thread.sleep(20);
    }
  }

  private void awaitStored(long records) throws InterruptedException {
    await(() -> sum(state(), "runs.stored") == records);
  }

  @Test
  void recordsAreFoundByEveryFilterAndPageByPage() throws Exception {
    send(
        decision(1, "a", "maya.lind", "10.4.2.9"),
        decision(2, "b", null, "10.4.2.10"),
        decision(3, null, "Tove.Aas", "10.5.0.1"));
    awaitStored(3);
    assertThat(log("").getList("records.from", String.class))
        .containsExactly("10.5.0.1", "10.4.2.10", "10.4.2.9");
    assertThat(log("").getBoolean("more")).isFalse();
    assertThat(log("?rule=a").getList("records.person", String.class)).containsExactly("maya.lind");
    assertThat(log("?rule=default").getList("records.verdict")).containsExactly("drop");
    assertThat(log("?rule=c").getList("records.observedVerdict"))
        .containsExactly("reject", "reject", "reject");
    assertThat(log("?verdict=refused").getList("records.verdict")).containsExactly("drop");
    assertThat(log("?verdict=allow").getList("records")).hasSize(2);
    assertThat(log("?person=tove.aas").getList("records")).hasSize(1);
    assertThat(log("?address=10.4.0.0/16").getList("records")).hasSize(2);
    assertThat(log("?address=203.0.113.7").getList("records")).hasSize(3);
    assertThat(log("?address=10.4.2.9").getList("records.service")).containsExactly("tcp/443");
    assertThat(log("?application=lanternreel").getList("records")).hasSize(3);
    assertThat(log("?application=lantern").getList("records")).isEmpty();
    assertThat(log("?since=" + now.minusSeconds(58)).getList("records")).hasSize(2);
    assertThat(log("?until=" + now.minusSeconds(58)).getList("records")).hasSize(1);

    JsonPath first = log("?limit=2");
    assertThat(first.getBoolean("more")).isTrue();
    JsonPath rest = log("?limit=2&behind=" + first.getString("records[1].cursor"));
    assertThat(rest.getList("records.from")).containsExactly("10.4.2.9");
    assertThat(rest.getBoolean("more")).isFalse();
    JsonPath one = log("?rule=b");
    assertThat(one.getString("records[0].stage")).isEqualTo("handshake");
    assertThat(one.getString("records[0].ruleName")).isEqualTo("B");
    assertThat(one.getInt("records[0].ruleNumber")).isEqualTo(2);
    assertThat(one.getString("records[0].connection"))
        .startsWith("from 10.4.2.10 in inside to 203.0.113.7 in inside tcp/443 from port 50000")
        .contains("site www.quay.example", "application Lanternreel: view", "time 20");
  }

  @Test
  void aReviewCountsTheRecordedConnectionsThatItChanges() throws Exception {
    send(
        decision(1, "a", "maya.lind", "10.4.2.9"),
        decision(2, "a", "maya.lind", "10.4.2.9"),
        decision(3, "a", null, "10.5.0.1"),
        decision(3, "a", null, "10.5.0.1")); // again
    awaitStored(3);
    Client ruth = Client.signedIn("ruth.okell");
    ruth.edit(id, 0, "{\"kind\": \"deleteRules\", \"ids\": [\"a\"]}").then().statusCode(200);
    JsonPath review = ruth.request().get("/api/rulebases/" + id + "/draft/review").jsonPath();
    assertThat(review.getInt("recorded")).isEqualTo(3);
    assertThat(review.getList("verdicts.recorded", Integer.class)).containsExactly(3, 0);
    assertThat(review.getList("verdicts[0].people")).containsExactly("maya.lind");
  }

  @Test
  void theOverviewCountsWhatNeedsAttention() throws Exception {
    send(hits("run", 1, "a", 3), hits("run", 2, "b", 4), hits("run", 3, null, 2));
    awaitStored(3);
    String overview = "/api/rulebases/" + id + "/overview";
    JsonPath found = ines.request().get(overview).jsonPath();
    assertThat(found.getInt("changes")).isZero();
    assertThat(found.getInt("findings.error")).isEqualTo(1); // b is shadowed by a
    assertThat(found.getMap("gateways")).isEqualTo(Map.of("not enrolled", 1));
    assertThat(sum(found, "decided")).isEqualTo(9);
    assertThat(sum(found, "refused")).as("by a and the default rule").isEqualTo(5);
    Client.anonymous().get(overview).then().statusCode(401);
  }

  @Test
  void aWrongFilterSaysWhichPart() {
    for (String wrong :
        List.of(
            "verdict=deny",
            "address=10.4.2",
            "since=yesterday",
            "until=now",
            "behind=1",
            "limit=0",
            "limit=1001")) {
      ines.request()
          .get("/api/rulebases/" + id + "/log?" + wrong)
          .then()
          .statusCode(422)
          .body("detail", containsString(wrong.substring(0, wrong.indexOf('='))));
    }
    ines.request().get("/api/rulebases/999999/log").then().statusCode(404);
    Client.anonymous().get("/api/rulebases/" + id + "/log").then().statusCode(401);
    Client.anonymous().get("/api/rulebases/" + id + "/hits").then().statusCode(401);
  }

  @Test
  void hitsAddUpAndWhatComesAgainCountsOnce() throws Exception {
    send(hits("run", 1, "a", 3), hits("run", 2, null, 1));
    awaitStored(2);
    // After a new connection the last records come again; number 4 got lost on the way.
    send(
        hits("run", 1, "a", 3),
        hits("run", 2, null, 1),
        hits("run", 3, "a", 5),
        hits("run", 5, "a", 2),
        hits("another run", 1, "a", 10));
    awaitStored(5);
    assertThat(hits().getLong("find { it.rule == 'a' }.connections")).isEqualTo(20);
    assertThat(hits().getLong("find { it.rule == null }.connections")).isEqualTo(1);
    assertThat(hits().getLong("find { it.rule == 'a' }.bytes")).isEqualTo(8_000);
    assertThat(hits().getLong("find { it.rule == 'a' }.differing")).isEqualTo(4);
    assertThat(hits().getLong("find { it.rule == 'a' }.observed")).isEqualTo(8);
    assertThat(hits().getList("find { it.rule == 'a' }.hours", Long.class))
        .hasSize(24)
        .satisfies(hours -> assertThat(hours.stream().mapToLong(h -> h).sum()).isEqualTo(20));
    JsonPath state = state();
    assertThat(sum(state, "runs.lost")).isEqualTo(1);
    assertThat(sum(state, "runs.repeated")).isEqualTo(2);
  }

  @Test
  void whatIsNoRecordIsCountedWithItsSenderAndStopsNothing() throws Exception {
    JsonPath before = state();
    sendText("hello\n<34>1 - - - - - - other syslog\n20 <34>1 - - - - - [a b99999 ");
    sendText(
        SyslogWriter.write(decision(1, "a", null, "10.0.0.1")).replace(gateway, "Nobody") + "\n");
    sendText(SyslogWriter.write(decision(1, "a", null, "10.0.0.1")) + "\n");
    awaitStored(1); // nothing orders what comes over UDP behind it
    try (DatagramSocket socket = new DatagramSocket()) {
      byte[] bytes =
          SyslogWriter.write(decision(2, "b", null, "10.0.0.2")).getBytes(StandardCharsets.UTF_8);
      byte[] wrong =
          SyslogWriter.write(decision(3, "b", null, "10.0.0.2"))
              .replace("port=\"443\"", "port=\"high\"")
              .getBytes(StandardCharsets.UTF_8);
      for (byte[] one : List.of(wrong, bytes)) {
        socket.send(new DatagramPacket(one, one.length, LOOPBACK, udp));
      }
    }
    awaitStored(2);
    await(() -> more(before, "malformed") >= 4 && more(before, "unknownGateway") >= 1);
    assertThat(more(before, "other")).isEqualTo(1);
    assertThat(state().getString("senders[0].lastFault")).isNotBlank();
  }

  @Test
  void flowsAreCountedWithTheirExporter(@TempDir Path folder) throws Exception {
    int ipfix = flows.listen(new InetSocketAddress(LOOPBACK, 0));
    JsonPath before = state();
    IpfixWriter writer = new IpfixWriter(7);
    List<FlowRecord> three = Collections.nCopies(3, flow());
    List<byte[]> messages = new ArrayList<>(writer.messages(three, now, false)); // no template
    messages.addAll(writer.messages(three, now, true));
    writer.messages(three, now, false); // lost on the way
    messages.addAll(writer.messages(three, now, false));
    messages.add(new byte[] {0, 9, 0, 4});
    try (DatagramSocket socket = new DatagramSocket()) {
      for (byte[] one : messages) {
        socket.send(new DatagramPacket(one, one.length, LOOPBACK, ipfix));
      }
    }
    await(() -> more(before, "malformed") == 1);
    assertThat(more(before, "flows")).isEqualTo(6);
    assertThat(more(before, "lostFlows")).isEqualTo(3);
    assertThat(more(before, "unreadFlows")).isEqualTo(1);
    assertThat(state().getString("senders[0].lastFault"))
        .isEqualTo("IPFIX, at byte 1: expected a header of 16 bytes, found 4 bytes.");
    exportByAnotherProgram(folder, ipfix);
    await(() -> more(before, "flows") == 7);
    assertThat(more(before, "malformed")).isEqualTo(1);
  }

  private FlowRecord flow() {
    return new FlowRecord(
        now,
        now,
        Address.parse("10.0.0.1"),
        Address.parse("203.0.113.7"),
        6,
        50_000,
        443,
        0,
        1,
        40,
        Event.DENIED,
        "",
        "");
  }

  /** Lets softflowd read a capture of one UDP packet, and export its flow as IPFIX. */
  private static void exportByAnotherProgram(Path folder, int port) throws Exception {
    byte[] packet = CaptureWriter.ipv4(1, 2, 17, CaptureWriter.udp(50_000, 53, new byte[2]));
    byte[] capture = CaptureWriter.pcap(ByteOrder.LITTLE_ENDIAN, List.of(packet));
    Path file = Files.write(folder.resolve("capture"), capture);
    Process exporter =
        new ProcessBuilder(
                "softflowd",
                "-r",
                file.toString(),
                "-n",
                "127.0.0.1:" + port,
                "-v",
                "10",
                "-d",
                "-p",
                folder.resolve("pid").toString(),
                "-c",
                "none") // no control socket, whose state it sometimes reads before it is set
            .redirectErrorStream(true)
            .start();
    String said = new String(exporter.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
    assertThat(exporter.waitFor()).as(said).isZero();
  }

  private long more(JsonPath before, String kind) {
    return sum(state(), "senders." + kind) - sum(before, "senders." + kind);
  }

  private static long sum(JsonPath state, String path) {
    return state.getList(path, Long.class).stream().mapToLong(n -> n).sum();
  }

  @Test
  void aClockThatIsWrongIsShownAndItsRecordsGetTheTimeOfReceipt() throws Exception {
    Instant wrong = now.plus(Duration.ofDays(1));
    SyslogMessage message =
        new HitRecord(new Origin(gateway, "run", 1), 1, "a", 0, 1, 0, 0, 1, 1, wrong, wrong)
            .message(wrong);
    send(message);
    awaitStored(1);
    assertThat(state().getDouble("runs[0].clockAhead")).isBetween(86_000.0, 87_000.0);
    assertThat(hits().getList("[0].hours", Long.class).stream().mapToLong(h -> h).sum())
        .isEqualTo(1);
  }
}
