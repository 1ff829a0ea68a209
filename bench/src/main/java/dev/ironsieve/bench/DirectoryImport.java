package dev.ironsieve.bench;

import com.unboundid.asn1.ASN1OctetString;
import com.unboundid.ldap.listener.InMemoryDirectoryServer;
import com.unboundid.ldap.listener.InMemoryDirectoryServerConfig;
import com.unboundid.ldap.listener.InMemoryListenerConfig;
import com.unboundid.ldap.sdk.Attribute;
import com.unboundid.ldap.sdk.Entry;
import com.unboundid.ldap.sdk.LDAPConnection;
import com.unboundid.ldap.sdk.LDAPException;
import com.unboundid.ldap.sdk.SearchRequest;
import com.unboundid.ldap.sdk.SearchResult;
import com.unboundid.ldap.sdk.SearchScope;
import com.unboundid.ldap.sdk.controls.SimplePagedResultsControl;
import dev.ironsieve.core.directory.PersonVocabulary;
import dev.ironsieve.core.directory.Snapshot;
import dev.ironsieve.core.model.Vocabulary;
import dev.ironsieve.server.directory.DirectoryFault;
import dev.ironsieve.server.directory.DirectoryReader;
import dev.ironsieve.server.directory.DirectorySource;
import java.net.InetAddress;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;

/** Time to read a directory over LDAP, from the first packet to the vocabulary of people. */
@Command(
    name = "directory",
    mixinStandardHelpOptions = true,
    description = {
      "Reads a generated directory with nested groups over LDAP into a snapshot, and works out",
      "that rules can name, beside fetching the same entries and throwing them away. The server",
      "is in memory, on loopback, in the same JVM, and shares its processors."
    })
final class DirectoryImport implements Runnable {
  private static final String BASE = "dc=brindlemere,dc=example";
  private static final String PEOPLE = "(objectClass=inetOrgPerson)";
  private static final String GROUPS = "(objectClass=groupOfNames)";
  private static final int PAGE = 500;
  private static final int MEMBERS = 40; // of a group, on the average
  private static final int TITLES = 60;

  @Option(names = "--people", description = "50,000 if left out.")
  private int people = 50_000;

  @Option(names = "--groups", description = "5,000 if left out.")
  private int groups = 5000;

  @Option(names = "--runs", description = "5 if left out.")
  private int runs = 5;

  @Override
  public void run() {
    try {
      InMemoryDirectoryServer server = server();
      measure("ldap://127.0.0.1:" + server.getListenPort());
      server.shutDown(true);
    } catch (LDAPException e) {
      throw new IllegalStateException("the directory of the benchmark", e);
    }
  }

  private InMemoryDirectoryServer server() throws LDAPException {
    InMemoryDirectoryServerConfig config = new InMemoryDirectoryServerConfig(BASE);
    config.setSchema(null);
    config.setListenerConfigs(
        InMemoryListenerConfig.createLDAPConfig("b", InetAddress.getLoopbackAddress(), 0, null));
    InMemoryDirectoryServer server = new InMemoryDirectoryServer(config);
    server.add(new Entry(BASE, new Attribute("objectClass", "domain")));
    for (int i = 0; i < people; i++) {
      server.add(person(i));
    }
    Random random = new Random(5);
    for (int i = 0; i < groups; i++) {
      server.add(group(i, random));
    }
    server.startListening();
    return server;
  }

  private static String personDn(int number) {
    return "uid=p" + number + "," + BASE;
  }

  private static String groupDn(int number) {
    return "cn=group " + number + "," + BASE;
  }

  private static Entry person(int number) {
    return new Entry(
        personDn(number),
        new Attribute("objectClass", "inetOrgPerson"),
        new Attribute("uid", "p" + number),
        new Attribute("cn", "Person " + number),
        new Attribute("title", "title " + number % TITLES));
  }

  /** Some people, and up to three groups that were made before, so that they nest without loops. */
  private Entry group(int number, Random random) {
    List<String> members = new ArrayList<>();
    for (int i = random.nextInt(2 * MEMBERS); i >= 0; i--) {
      members.add(personDn(random.nextInt(people)));
    }
    for (int i = number == 0 ? 0 : random.nextInt(4); i > 0; i--) {
      members.add(groupDn(Math.max(0, number - 1 - random.nextInt(50))));
    }
    return new Entry(
        groupDn(number),
        new Attribute("objectClass", "groupOfNames"),
        new Attribute("cn", "group " + number),
        new Attribute("member", members));
  }

  private void measure(String url) throws LDAPException {
    DirectorySource source = source(url);
    Snapshot[] read = new Snapshot[1];
    Vocabulary[] meant = new Vocabulary[1];
    Timings fetching = Timings.of(runs, run -> fetch(url));
    Timings reading = Timings.of(runs, run -> read[0] = read(source));
    Timings meaning = Timings.of(runs, run -> meant[0] = PersonVocabulary.of(read[0]));
    System.out.printf(
        "directory of %d people and %d nested groups: read %s, %.2f times fetching it (%s);"
            + " that rules can name %s (%d values)%n",
        read[0].people().size(),
        read[0].groups().size(),
        reading,
        reading.median() / fetching.median(),
        fetching,
        meaning,
        meant[0].values().size());
  }

  private static DirectorySource source(String url) {
    return new DirectorySource(
        url,
        false,
        Optional.empty(),
        Optional.empty(),
        Optional.empty(),
        BASE,
        PEOPLE,
        "uid",
        "cn",
        List.of("title"),
        GROUPS,
        "cn",
        List.of("member"),
        PAGE,
        Duration.ofSeconds(20),
        Duration.ofMinutes(10));
  }

  private static Snapshot read(DirectorySource source) {
    try {
      return DirectoryReader.read(source, "benchmark");
    } catch (DirectoryFault e) {
      throw new IllegalStateException(e);
    }
  }

  /** Asks for the same entries, page by page, and looks at none of them. */
  private static void fetch(String url) {
    int port = Integer.parseInt(url.substring(url.lastIndexOf(':') + 1));
    try (LDAPConnection connection = new LDAPConnection("127.0.0.1", port)) {
      for (String filter : List.of(PEOPLE, GROUPS)) {
        ASN1OctetString cookie = null;
        do {
          SearchRequest request = new SearchRequest(BASE, SearchScope.SUB, filter);
          request.addControl(new SimplePagedResultsControl(PAGE, cookie));
          SearchResult result = connection.search(request);
          cookie = SimplePagedResultsControl.get(result).getCookie();
        } while (cookie != null && cookie.getValueLength() > 0);
      }
    } catch (LDAPException e) {
      throw new IllegalStateException(e);
    }
  }
}
