package dev.ironsieve.server.directory;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.unboundid.ldap.listener.InMemoryDirectoryServer;
import com.unboundid.ldap.listener.InMemoryDirectoryServerConfig;
import com.unboundid.ldap.listener.InMemoryListenerConfig;
import com.unboundid.ldap.listener.interceptor.InMemoryInterceptedSearchResult;
import com.unboundid.ldap.listener.interceptor.InMemoryOperationInterceptor;
import com.unboundid.util.ssl.KeyStoreKeyManager;
import com.unboundid.util.ssl.SSLUtil;
import dev.ironsieve.core.directory.Group;
import dev.ironsieve.core.directory.Person;
import dev.ironsieve.core.directory.PersonVocabulary;
import dev.ironsieve.core.directory.Snapshot;
import dev.ironsieve.core.model.Vocabulary;
import java.io.IOException;
import java.io.OutputStream;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.KeyStore;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Base64;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Reading directories over LDAP: whole ones, odd ones, and ones that fail on the way. */
class DirectoryReaderTest {
  private static final String BASE = "dc=brindlemere,dc=example";
  private static final char[] KEY_PASSWORD = "for-tests-only".toCharArray();

  private InMemoryDirectoryServer server;

  @AfterEach
  void stop() {
    if (server != null) {
      server.shutDown(true);
    }
  }

  private static InMemoryDirectoryServerConfig config() throws Exception {
    InMemoryDirectoryServerConfig config = new InMemoryDirectoryServerConfig(BASE);
    config.setSchema(null); // directories hold what they like
    config.addAdditionalBindCredentials("cn=reader", "secret");
    return config;
  }

  private String start(InMemoryDirectoryServerConfig config) throws Exception {
    server = new InMemoryDirectoryServer(config);
    server.add("dn: " + BASE, "objectClass: domain", "dc: brindlemere");
    server.startListening();
    return "ldap://127.0.0.1:" + server.getListenPort();
  }

  private void person(String uid, String... more) throws Exception {
    List<String> lines =
        new ArrayList<>(
            List.of("dn: uid=" + uid + "," + BASE, "objectClass: inetOrgPerson", "uid: " + uid));
    lines.addAll(List.of(more));
    server.add(lines.toArray(String[]::new));
  }

  private void group(String cn, String... members) throws Exception {
    List<String> lines =
        new ArrayList<>(
            List.of("dn: cn=" + cn + "," + BASE, "objectClass: groupOfNames", "cn: " + cn));
    for (String member : members) {
      lines.add("member: " + member + (member.contains("=") ? "," + BASE : ""));
    }
    server.add(lines.toArray(String[]::new));
  }

  private static DirectorySource source(String url) {
    return source(url, false, Optional.empty());
  }

  private static DirectorySource source(String url, boolean startTls, Optional<Path> trusted) {
    return source(url, startTls, trusted, Duration.ofSeconds(30));
  }

  /** The same, but given up soon, for what does not answer. */
  private static DirectorySource impatient(String url) {
    return source(url, false, Optional.empty(), Duration.ofSeconds(4));
  }

  private static DirectorySource source(
      String url, boolean startTls, Optional<Path> trusted, Duration timeout) {
    return new DirectorySource(
        url,
        startTls,
        trusted,
        Optional.of("cn=reader"),
        Optional.of("secret"),
        BASE,
        "(objectClass=inetOrgPerson)",
        "uid",
        "cn",
        List.of("title"),
        "(objectClass=groupOfNames)",
        "cn",
        List.of("member"),
        7,
        timeout,
        Duration.ofMinutes(2));
  }

  private static Snapshot read(DirectorySource source) throws DirectoryFault {
    return DirectoryReader.read(source, "e");
  }

  @Test
  void readsPeopleAttributesAndNestedGroupsOverManyPages() throws Exception {
    String url = start(config());
    for (int i = 0; i < 40; i++) {
      person("p" + i, "cn: Person " + i, "title: mate");
    }
    group("deck", "UID=p1", "uid = p2");
    group("ship", "cn=deck", "uid=p3");
    Snapshot snapshot = read(source(url));
    assertThat(snapshot.people()).hasSize(40);
    assertThat(snapshot.people().getFirst())
        .isEqualTo(new Person("p0", "Person 0", Map.of("title", List.of("mate"))));
    assertThat(snapshot.remarks()).isEmpty();
    Vocabulary vocabulary = PersonVocabulary.of(snapshot);
    List<String> ship = new ArrayList<>();
    vocabulary.meanings().get("ship").forEach(n -> ship.add(vocabulary.values().get(n)));
    assertThat(ship).containsExactlyInAnyOrder("Person 1", "Person 2", "Person 3");
  }

  @Test
  void whatIsOddIsLeftOutAndSaid() throws Exception {
    String url = start(config());
    person("a", "cn: Ann");
    person("b");
    server.add("dn: cn=x," + BASE, "objectClass: inetOrgPerson", "cn: No Id");
    server.add("dn: ou=two," + BASE, "objectClass: organizationalUnit", "ou: two");
    server.add(
        "dn: uid=c,ou=two," + BASE, "objectClass: inetOrgPerson", "uid: C", "cn: Another Cleo");
    person("c", "cn: Cleo");
    group("deck", "uid=a", "uid=gone", "not a name", "a", "cn=mates");
    group("mates", "cn=deck");
    Snapshot snapshot = read(source(url));
    assertThat(snapshot.people()).extracting(Person::name).containsExactly("Ann");
    assertThat(snapshot.groups()).extracting(Group::people).contains(List.of("a"));
    assertThat(snapshot.remarks())
        .anyMatch(r -> r.startsWith("Left out, since they have no cn: uid=b"))
        .anyMatch(r -> r.startsWith("Left out, since they have no uid: cn=x"))
        .anyMatch(r -> r.startsWith("Left out, since another has their uid: "))
        .anyMatch(r -> r.contains("members of deck: uid=gone," + BASE + "; not a name"))
        .anyMatch(
            r ->
                r.startsWith("Groups hold each other")
                    && r.contains("deck, which holds mates, which holds deck"))
        .hasSize(5);
  }

  @Test
  void aDirectoryWithNobodyInItIsAFault() throws Exception {
    String url = start(config());
    assertThatThrownBy(() -> read(source(url)))
        .isInstanceOf(DirectoryFault.class)
        .hasMessageContaining("expected some below \"" + BASE + "\"")
        .hasMessageContaining("found none");
  }

  @Test
  void saysWhichStepFails() throws Exception {
    String url = start(config());
    person("a", "cn: Ann");
    assertThatThrownBy(() -> read(source("http://directory.example")))
        .isInstanceOf(DirectoryFault.class)
        .hasMessageContaining("expected ldap://HOST:PORT");
    int closed;
    try (ServerSocket socket = new ServerSocket(0)) {
      closed = socket.getLocalPort();
    }
    assertThatThrownBy(() -> read(source("ldap://127.0.0.1:" + closed)))
        .isInstanceOf(DirectoryFault.class)
        .hasMessageContaining("Connecting to 127.0.0.1 port " + closed);
    DirectorySource stranger = source(url);
    server.shutDown(true);
    assertThatThrownBy(() -> read(stranger)).isInstanceOf(DirectoryFault.class);
    InMemoryDirectoryServerConfig other = config();
    other.addAdditionalBindCredentials("cn=reader", "another");
    String again = start(other);
    assertThatThrownBy(() -> read(source(again)))
        .isInstanceOf(DirectoryFault.class)
        .hasMessageContaining("Signing in")
        .hasMessageContaining("invalid credentials");
  }

  @Test
  void aDirectoryThatAnswersSlowlyIsGivenUp() throws Exception {
    InMemoryDirectoryServerConfig config = config();
    config.addInMemoryOperationInterceptor(
        new InMemoryOperationInterceptor() {
          @Override
          public void processSearchResult(InMemoryInterceptedSearchResult result) {
            try {
              Thread.sleep(10_000);
            } catch (InterruptedException e) {
              Thread.currentThread().interrupt();
            }
          }
        });
    String url = start(config);
    assertThatThrownBy(() -> read(impatient(url)))
        .isInstanceOf(DirectoryFault.class)
        .hasMessageContaining("Reading people after 0 of them")
        .hasMessageContaining("timeout");
  }

  @Test
  void aDirectoryThatBreaksOffLeavesNothingHalfRead() throws Exception {
    AtomicInteger pages = new AtomicInteger();
    InMemoryDirectoryServerConfig config = config();
    config.addInMemoryOperationInterceptor(
        new InMemoryOperationInterceptor() {
          @Override
          public void processSearchResult(InMemoryInterceptedSearchResult result) {
            if (pages.incrementAndGet() == 3) {
              server.closeAllConnections(false);
            }
          }
        });
    String url = start(config);
    for (int i = 0; i < 40; i++) {
      person("p" + i, "cn: Person " + i);
    }
    assertThatThrownBy(() -> read(source(url)))
        .isInstanceOf(DirectoryFault.class)
        .hasMessageContaining("Reading people after 14 of them");
  }

  @Test
  void whatIsNoDirectoryIsAFaultAndNeverAHang() throws Exception {
    Random random = new Random(3);
    for (int round = 0; round < 20; round++) {
      byte[] noise = new byte[1 + random.nextInt(400)];
      random.nextBytes(noise);
      try (ServerSocket socket = new ServerSocket(0)) {
        Thread speaker =
            Thread.ofVirtual()
                .start(
                    () -> {
                      try (Socket client = socket.accept();
                          OutputStream out = client.getOutputStream()) {
                        out.write(noise);
                      } catch (IOException e) {
                        // The reader hung up first, which is as good.
                      }
                    });
        assertThatThrownBy(() -> read(impatient("ldap://127.0.0.1:" + socket.getLocalPort())))
            .as(Base64.getEncoder().encodeToString(noise))
            .isInstanceOf(DirectoryFault.class);
        speaker.join();
      }
    }
  }

  @Test
  void trustsOnlyTheCertificatesThatItIsGiven(@TempDir Path folder) throws Exception {
    Path own = certificate(folder, "own", "dns:localhost");
    Path foreign = certificate(folder, "foreign", "dns:localhost");
    Path elsewhere = certificate(folder, "elsewhere", "dns:directory.example");
    for (Path shown : List.of(own, elsewhere)) {
      SSLUtil tls =
          new SSLUtil(new KeyStoreKeyManager(shown.toFile(), KEY_PASSWORD, "PKCS12", "key"), null);
      InMemoryDirectoryServerConfig config = config();
      config.setListenerConfigs(
          InMemoryListenerConfig.createLDAPConfig("plain", null, 0, tls.createSSLSocketFactory()),
          InMemoryListenerConfig.createLDAPSConfig(
              "tls", null, 0, tls.createSSLServerSocketFactory(), null));
      start(config);
      person("a", "cn: Ann");
      String ldaps = "ldaps://localhost:" + server.getListenPort("tls");
      String ldap = "ldap://localhost:" + server.getListenPort("plain");
      Optional<Path> trusted = Optional.of(pem(shown));
      if (shown == own) {
        assertThat(read(source(ldaps, false, trusted)).people()).hasSize(1);
        assertThat(read(source(ldap, true, trusted)).people()).hasSize(1);
      } else {
        refused(source(ldaps, false, trusted));
        refused(source(ldap, true, trusted));
      }
      refused(source(ldaps, false, Optional.of(pem(foreign))));
      refused(source(ldap, true, Optional.of(pem(foreign))));
      refused(source(ldaps, false, Optional.empty()));
      server.shutDown(true);
    }
  }

  private static void refused(DirectorySource source) {
    assertThatThrownBy(() -> read(source)).as(source.url()).isInstanceOf(DirectoryFault.class);
  }

  /** A key and its certificate, made by the JDK's own tool. */
  private static Path certificate(Path folder, String name, String names) throws Exception {
    Path store = folder.resolve(name + ".p12");
    Path tool = Path.of(System.getProperty("java.home"), "bin", "keytool");
    Process made =
        new ProcessBuilder(
                tool.toString(),
                "-genkeypair",
                "-keyalg",
                "EC",
                "-alias",
                "key",
                "-dname",
                "CN=" + name,
                "-ext",
                "SAN=" + names,
                "-validity",
                "2",
                "-storetype",
                "PKCS12",
                "-keystore",
                store.toString(),
                "-storepass",
                new String(KEY_PASSWORD))
            .inheritIO()
            .start();
    assertThat(made.waitFor()).isZero();
    return store;
  }

  private static Path pem(Path store) throws Exception {
    KeyStore keys = KeyStore.getInstance(store.toFile(), KEY_PASSWORD);
    String text =
        Base64.getMimeEncoder(64, new byte[] {'\n'})
            .encodeToString(keys.getCertificate("key").getEncoded());
    return Files.writeString(
        store.resolveSibling(store.getFileName() + ".pem"),
        "-----BEGIN CERTIFICATE-----\n" + text + "\n-----END CERTIFICATE-----\n");
  }
}
