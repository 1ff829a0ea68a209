package dev.ironsieve.core.signature;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.ironsieve.core.model.InvalidModel;
import dev.ironsieve.core.model.ServiceLiteral;
import dev.ironsieve.core.signature.Condition.Side;
import dev.ironsieve.core.signature.Condition.Speaks.Protocol;
import dev.ironsieve.core.signature.Condition.Where;
import dev.ironsieve.core.signature.Recogniser.Named;
import dev.ironsieve.core.twin.Rounds;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HexFormat;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class RecogniserTest {
  private static final int TCP = 6;
  private static final int UDP = 17;

  private static byte[] text(String text) {
    return text.getBytes(StandardCharsets.ISO_8859_1);
  }

  private static Sight tcp(int port, byte[] client, String server) {
    return Sight.stream(TCP, port, client, text(server));
  }

  private static Sight tcp(int port, String client, String server) {
    return tcp(port, text(client), server);
  }

  private static Named named(String application, String feature, Condition... conditions) {
    return new Named(application, new Signature(feature, List.of(conditions)));
  }

  private static Condition tls(String host) {
    return new Condition.Names(Where.TLS, HostPattern.parse(host));
  }

  private static Condition http(String host) {
    return new Condition.Names(Where.HTTP, HostPattern.parse(host));
  }

  private static Condition on(String service) {
    return new Condition.OnService(List.of(ServiceLiteral.parse(service)));
  }

  private static Condition client(String bytes) {
    return new Condition.Starts(Side.CLIENT, BytePattern.parse(bytes));
  }

  private static final List<Named> SOME =
      List.of(
          named("TLS", null, new Condition.Speaks(Protocol.TLS)),
          named("HTTP", null, new Condition.Speaks(Protocol.HTTP)),
          named("DNS", null, new Condition.Speaks(Protocol.DNS)),
          named("DNS over TLS", null, new Condition.Offers("dot")),
          named("Gullwire", null, tls("*.gullwire.example")),
          named("Gullwire", null, http("*.gullwire.example")),
          named("Gullwire", "call", tls("media.gullwire.example")),
          named("Gullwire", "post", http("*.gullwire.example"), new Condition.Path("/post")),
          named("WebDAV", null, new Condition.Asks("PROPFIND")),
          named("WebSocket", null, new Condition.Field("Upgrade", "websocket")),
          named("SSH", null, client("53 53 48 2d")),
          named("NETCONF", null, client("53 53 48 2d"), on("tcp/830")),
          named("STUN", null, client("00 01 ?? ?? 21 12 a4 42")),
          named("Syslog", null, on("udp/514"), Condition.Finds.of(Side.CLIENT, "^<[0-9]{1,3}>")),
          named("POP3", null, new Condition.Starts(Side.SERVER, BytePattern.parse("2b 4f 4b"))),
          named("ESP", null, on("ip/50")));

  private static String told(Sight sight) {
    return new Recogniser(SOME)
        .recognise(sight)
        .map(found -> found.meant().use() + " by " + String.join(", ", found.evidence()))
        .orElse("nothing");
  }

  @Test
  void tellsWhatItIsAndByWhat() {
    byte[] hello = Hello.records(Hello.message("Chat.Gullwire.example", 0, "h2"), 100);
    assertThat(told(tcp(443, hello, "")))
        .isEqualTo("Gullwire by TLS server name chat.gullwire.example");
    byte[] media = Hello.records(Hello.message("media.gullwire.example", 0, "h2"), 4000);
    assertThat(told(tcp(443, media, "")))
        .isEqualTo("Gullwire: call by TLS server name media.gullwire.example");
    byte[] apex = Hello.records(Hello.message("gullwire.example", 0, "h2"), 4000);
    assertThat(told(tcp(443, apex, ""))).isEqualTo("TLS by client speaks TLS");
    byte[] dot = Hello.records(Hello.message("names.example", 0, "dot"), 4000);
    assertThat(told(tcp(853, dot, ""))).isEqualTo("DNS over TLS by TLS offers dot");
    String post = "POST /post/7?x HTTP/1.1\r\nHost: chat.gullwire.example:8080\r\n\r\nhello";
    assertThat(told(tcp(8080, post, "")))
        .isEqualTo("Gullwire: post by HTTP host chat.gullwire.example, HTTP path /post/7");
    assertThat(told(tcp(80, "PROPFIND / HTTP/1.1\r\nHost: x.example\r\n\r\n", "")))
        .isEqualTo("WebDAV by HTTP method PROPFIND");
    assertThat(told(tcp(80, "GET / HTTP/1.1\r\nhost: x\r\nUPGRADE: WebSocket\r\n\r\n", "")))
        .isEqualTo("WebSocket by HTTP field upgrade: WebSocket");
    assertThat(told(tcp(2222, "SSH-2.0-x\r\n", ""))).isEqualTo("SSH by client sends 53 53 48 2d");
    assertThat(told(tcp(830, "SSH-2.0-x\r\n", ""))).startsWith("NETCONF by ").contains("tcp/830");
    assertThat(told(tcp(110, "", "+OK ready\r\n"))).isEqualTo("POP3 by server sends 2b 4f 4b");
    assertThat(told(Sight.datagrams(UDP, 514, List.of(text("<34>x")), new byte[0])))
        .isEqualTo("Syslog by service udp/514, client sends what fits ^<[0-9]{1,3}>");
    assertThat(told(Sight.stream(50, 0, new byte[9], new byte[0])))
        .isEqualTo("ESP by service ip/50");
    assertThat(told(tcp(443, "nonsense", "more of it"))).isEqualTo("nothing");
    assertThat(told(tcp(443, "", ""))).isEqualTo("nothing");
  }

  @Test
  void aQuestionOfDnsIsReadFromDatagramsAndFromStreams() {
    byte[] question =
        HexFormat.of().parseHex("abcd01000001000000000000034d617a046669656c0000010001");
    assertThat(told(Sight.datagrams(UDP, 53, List.of(question), new byte[0])))
        .isEqualTo("DNS by client speaks DNS");
    byte[] stream = new byte[question.length + 2];
    stream[1] = (byte) question.length;
    System.arraycopy(question, 0, stream, 2, question.length);
    Sight sight = Sight.stream(TCP, 53, stream, new byte[0]);
    assertThat(told(sight)).isEqualTo("DNS by client speaks DNS");
    assertThat(sight.dns()).isEqualTo(new DnsQuestion("maz.fiel", 1));
    question[2] = (byte) 0x81; // an answer
    assertThat(told(Sight.datagrams(UDP, 53, List.of(question), new byte[0]))).isEqualTo("nothing");
  }

  @Test
  void whatHoldsTooIsToldTheNarrowestFirst() {
    byte[] media = Hello.records(Hello.message("media.gullwire.example", 0, "h2"), 4000);
    Recognised found = new Recogniser(SOME).recognise(tcp(443, media, "")).orElseThrow();
    assertThat(found.others()).extracting(Named::use).containsExactly("Gullwire", "TLS");
  }

  /** The index finds what looking at every signature finds. */
  @Test
  void findsWhatLookingAtEverySignatureFinds() {
    Random random = new Random(23);
    String[] hosts = {"a.example", "b.a.example", "*.a.example", "*.example", "c.b.a.example"};
    int found = 0;
    for (int round = Rounds.of(800); round > 0; round--) {
      List<Named> all = new ArrayList<>();
      for (int i = 0; i < 12; i++) {
        List<Condition> conditions = new ArrayList<>();
        do {
          conditions.add(
              switch (random.nextInt(8)) {
                case 0, 1 -> tls(hosts[random.nextInt(hosts.length)]);
                case 2 -> http(hosts[random.nextInt(hosts.length)]);
                case 3 -> client(random.nextBoolean() ? "16 03" : "@1: 03 01");
                case 4 -> new Condition.Path(random.nextBoolean() ? "/" : "/x");
                case 5 -> new Condition.Speaks(Protocol.values()[random.nextInt(4)]);
                case 6 -> new Condition.Starts(Side.SERVER, BytePattern.parse("4f"));
                default -> Condition.Finds.of(Side.CLIENT, random.nextBoolean() ? "G.T" : "^\\x16");
              });
          if (random.nextInt(3) == 0) {
            conditions.add(on(random.nextBoolean() ? "tcp/443" : "tcp/80-8080"));
          }
        } while (random.nextBoolean());
        all.add(named("app " + i, null, conditions.toArray(Condition[]::new)));
      }
      Recogniser recogniser = new Recogniser(all);
      for (Sight sight : sights(random)) {
        Optional<String> expected =
            all.stream()
                .filter(
                    n ->
                        n.signature().conditions().stream()
                            .map(c -> c.evidence(sight))
                            .allMatch(Objects::nonNull))
                .min(
                    Comparator.comparing((Named n) -> -n.signature().weight())
                        .thenComparing(Named::use))
                .map(Named::use);
        assertThat(recogniser.recognise(sight).map(r -> r.meant().use()))
            .as(all.toString())
            .isEqualTo(expected);
        found += expected.isPresent() ? 1 : 0;
      }
    }
    assertThat(found).isGreaterThan(Rounds.least(1000));
  }

  /**
   * A trial agrees with recognisers that have the signature, have it not, and have nothing else.
   */
  @Test
  void aTrialTellsWhatOneMoreSignatureChanges() {
    Random random = new Random(19);
    int taken = 0;
    int held = 0;
    for (int round = Rounds.of(200); round > 0; round--) {
      List<Sight> sights = sights(random);
      Named own =
          switch (random.nextInt(4)) {
            case 0 -> named("own", null, tls("*.example"));
            case 1 -> named("own", null, new Condition.Path("/x"), new Condition.Asks("GET"));
            case 2 -> named("own", "use", client("16 03"));
            default -> named("HTTP", null, new Condition.Asks("GET"));
          };
      List<Named> all = new ArrayList<>(SOME);
      all.add(named("wide", null, http("*.a.example")));
      Recogniser before = new Recogniser(all);
      Trial trial = Trial.of(all, own, sights);
      all.add(own);
      Recogniser after = new Recogniser(all);
      Recogniser alone = new Recogniser(List.of(own));
      for (int i = 0; i < sights.size(); i++) {
        Sight sight = sights.get(i);
        boolean holds = alone.recognise(sight).isPresent();
        boolean meant = holds && after.recognise(sight).orElseThrow().meant().equals(own);
        String was = before.recognise(sight).map(r -> r.meant().use()).orElse(own.use());
        assertThat(trial.holds().contains(i)).isEqualTo(holds);
        assertThat(trial.meant().contains(i)).isEqualTo(meant);
        assertThat(trial.taken().contains(i)).isEqualTo(meant && !was.equals(own.use()));
      }
      taken += trial.taken().size();
      held += trial.holds().size();
    }
    assertThat(taken).isGreaterThan(Rounds.least(20));
    assertThat(held).isGreaterThan(taken);
  }

  private static List<Sight> sights(Random random) {
    String[] names = {"a.example", "b.a.example", "c.b.a.example", "example", "other.test"};
    String name = names[random.nextInt(names.length)];
    int port = random.nextBoolean() ? 443 : 80;
    return List.of(
        tcp(port, Hello.records(Hello.message(name, 0), 999), random.nextBoolean() ? "OK" : ""),
        tcp(port, "GET /xy HTTP/1.1\r\nHost: " + name + "\r\n\r\n", "OK"),
        tcp(port, "GET /x HTTP/1.1 and no more", ""),
        Sight.datagrams(UDP, port, List.of(text("hello")), new byte[0]));
  }

  @Test
  void bytesFromTheWireNeverThrow() {
    Random random = new Random(41);
    Recogniser recogniser = new Recogniser(SOME);
    byte[] hello = Hello.records(Hello.message("chat.gullwire.example", 50, "h2", "dot"), 200);
    byte[] request =
        text("GET http://chat.gullwire.example/ HTTP/1.1\r\nHost: a\r\nUpgrade: b\r\n\r\n");
    int named = 0;
    for (int i = Rounds.of(60_000); i > 0; i--) {
      byte[] bytes = (random.nextBoolean() ? hello : request).clone();
      for (int changes = random.nextInt(4); changes > 0; changes--) {
        bytes[random.nextInt(bytes.length)] = (byte) random.nextInt(256);
      }
      int length = random.nextBoolean() ? bytes.length : random.nextInt(bytes.length + 1);
      byte[] cut = Arrays.copyOf(bytes, length);
      Sight sight =
          random.nextInt(4) == 0
              ? Sight.datagrams(UDP, 53, List.of(cut), cut)
              : Sight.stream(TCP, 443, cut, bytes);
      named += recogniser.recognise(sight).isPresent() ? 1 : 0;
    }
    assertThat(named).isGreaterThan(Rounds.least(10_000));
  }

  @ParameterizedTest
  @ValueSource(strings = {"", "??", "5", "zz", "@: 00", "@-1: 00", "@1023: 00 00", "53 5", "@4 00"})
  void refusesWhatIsNoPatternOfBytes(String text) {
    assertThatThrownBy(() -> BytePattern.parse(text))
        .isInstanceOf(InvalidModel.class)
        .hasMessageContaining("hexadecimal pairs");
  }

  @ParameterizedTest
  @ValueSource(strings = {"53 53 ?? 2d", "@4: 21 12", "@1023: 00"})
  void writesPatternsOfBytesAsTheyAreRead(String text) {
    assertThat(BytePattern.parse(text)).hasToString(text);
  }

  @Test
  void refusesASignatureThatTellsNothing() {
    assertThatThrownBy(() -> new Signature(null, List.of())).hasMessageContaining("1 to 20");
    assertThatThrownBy(() -> new Signature(null, List.of(on("tcp/443"))))
        .hasMessageContaining("something beside ports");
    assertThatThrownBy(() -> Condition.Finds.of(Side.CLIENT, "(a"))
        .hasMessageContaining("a regular expression of RE2");
    assertThatThrownBy(() -> HostPattern.parse("*.*.example"))
        .hasMessageContaining("a host name in lower case");
  }
}
