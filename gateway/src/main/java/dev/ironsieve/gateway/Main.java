package dev.ironsieve.gateway;

import dev.ironsieve.core.signature.Recogniser;
import dev.ironsieve.formats.capture.Captures;
import dev.ironsieve.formats.catalogue.Catalogues;
import dev.ironsieve.formats.syslog.DecisionRecord;
import dev.ironsieve.formats.syslog.SyslogMessage;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.net.URI;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.HexFormat;
import java.util.List;
import java.util.concurrent.Callable;
import java.util.concurrent.ThreadLocalRandom;
import java.util.function.Consumer;
import javax.net.SocketFactory;
import picocli.CommandLine;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;

/** The program {@code iron-sieve gateway}. */
@Command(
    name = "gateway",
    description = "Runs a stand-in gateway, which follows the newest revision of its rulebase.",
    mixinStandardHelpOptions = true)
public final class Main implements Callable<Integer> {
  @Option(names = "--server", required = true, description = "The address of the server.")
  private URI server;

  @Option(
      names = "--token",
      description = "The token to enrol with, needed the first time; it is valid once.")
  private String token;

  @Option(
      names = "--data",
      required = true,
      description = "The folder for the gateway's secret and its revisions.")
  private Path data;

  @Option(names = "--name", description = "The gateway's name in its log records.")
  private String name;

  @Option(
      names = "--syslog",
      description =
          "Where log records go, as syslog: tcp://host:port (RFC 6587), tls://host:port (RFC 5425)"
              + " or udp://host:port (RFC 5426).")
  private URI syslog;

  @Option(
      names = "--trusted",
      description =
          "PEM file with the certificates that a collector over TLS may have, or be signed by;"
              + " those of the Java runtime if left out.")
  private Path trusted;

  @Option(
      names = "--ipfix",
      description =
          "Where flows of logged connections go: udp://host:port, IPFIX messages (RFC 7011).")
  private URI ipfix;

  @Option(
      names = "--traffic",
      description =
          "Decide generated connections: \"demo\", \"demo-terminals\", or a JSON file of patterns.")
  private String traffic;

  @Option(
      names = "--capture",
      description = "Decide the connections of a capture file (pcap or pcapng).")
  private Path capture;

  @Option(
      names = "--interface",
      description = "Decide the connections on a network interface, as tcpdump captures them.")
  private String device;

  @Option(
      names = "--filter",
      defaultValue = "",
      description = "With --interface: an expression of tcpdump, such as \"port 8080\".")
  private String filter;

  @Option(
      names = "--catalogue",
      description =
          "An edition of the catalogue, by whose signatures captured connections are recognised.")
  private Path catalogue;

  @Option(
      names = "--rate",
      defaultValue = "10",
      description = "Generated connections a second in the busiest hour (${DEFAULT-VALUE}).")
  private double rate;

  @Option(
      names = "--history",
      defaultValue = "0",
      description = "Hours before the first start for which connections are generated too.")
  private int history;

  @Option(names = "--seed", defaultValue = "1", description = "Seed of the generator.")
  private long seed;

  public static void main(String[] args) {
    System.exit(new CommandLine(new Main()).execute(args));
  }

  @Option(
      names = "--services",
      description =
          "Also follow a services rulebase, as a second gateway whose name ends in \"services\".")
  private boolean services;

  @Option(
      names = "--services-token",
      description = "The token to enrol with for the services, needed the first time.")
  private String servicesToken;

  @Override
  public Integer call() throws IOException, InterruptedException {
    if (services) {
      Path folder = Files.createDirectories(data.resolve("services"));
      String serviceTraffic = traffic == null ? null : "demo-services";
      Thread.ofPlatform()
          .daemon()
          .name("services")
          .start(() -> follow(folder, servicesToken, senderName() + " services", serviceTraffic));
    }
    follow(data, token, senderName(), traffic);
    return 0;
  }

  /** Follows one rulebase, until the program ends. */
  private void follow(Path folder, String enrolment, String sender, String patterns) {
    try (Revisions revisions = Revisions.open(folder)) {
      boolean first = revisions.inForce().isEmpty();
      boolean decides =
          patterns != null || folder.equals(data) && (capture != null || device != null);
      TrafficRun run = decides ? trafficRun(sender, patterns, first) : null;
      Gateway gateway =
          new Gateway(
              new ServerLink(server),
              revisions,
              System.err::println,
              run == null ? inForce -> {} : run::use);
      gateway.start(enrolment);
      if (run != null) {
        Thread.ofPlatform().daemon().name("traffic").start(run);
      }
      while (true) {
        gateway.follow();
      }
    } catch (IOException e) {
      throw new UncheckedIOException("following the rules in " + folder, e);
    } catch (InterruptedException stop) {
      Thread.currentThread().interrupt();
    }
  }

  private TrafficRun trafficRun(String sender, String patterns, boolean first) throws IOException {
    String run = HexFormat.of().toHexDigits(ThreadLocalRandom.current().nextLong());
    Decisions decisions =
        new Decisions(
            new Reports(sender, run, collector(), flowCollector(sender)),
            Decisions.MOST_OPEN,
            System.err::println);
    return new TrafficRun(
        patterns == null ? captured() : generated(patterns, first), decisions, System.err::println);
  }

  private TrafficSource generated(String patterns, boolean first) throws IOException {
    List<TrafficPattern> read =
        patterns.startsWith("demo") && !patterns.endsWith(".json")
            ? TrafficGenerator.demo(patterns)
            : TrafficGenerator.read(Files.readAllBytes(Path.of(patterns)));
    return new GeneratedTraffic(
        new TrafficGenerator(read, seed), rate, Duration.ofHours(first ? history : 0));
  }

  /** The connections of a capture file, or of an interface from now on. */
  private TrafficSource captured() throws IOException {
    List<Recogniser.Named> signatures =
        catalogue == null ? List.of() : Catalogues.read(Files.readAllBytes(catalogue)).signatures();
    CapturedTraffic traffic = new CapturedTraffic(signatures, System.out::println);
    if (capture != null) {
      try (InputStream in = Files.newInputStream(capture)) {
        Captures.read(capture.toString(), in, traffic);
      }
    }
    if (device != null) {
      LiveCapture live = new LiveCapture(device, filter, traffic, System.err::println);
      Runtime.getRuntime().addShutdownHook(new Thread(live::close));
      Thread.ofPlatform().daemon().name("capture").start(live);
    }
    return traffic;
  }

  private String senderName() {
    return name == null ? data.getFileName().toString() : name;
  }

  private Consumer<DecisionRecord> flowCollector(String sender) throws IOException {
    if (ipfix == null) {
      return record -> {};
    }
    IpfixSender flows = new IpfixSender(ipfix, sender.hashCode(), System.err::println);
    Thread.ofPlatform().daemon().name("ipfix").start(flows);
    return flows;
  }

  private Consumer<SyslogMessage> collector() throws IOException {
    if (syslog == null) {
      return message -> {};
    }
    if (Collectors.checked(syslog).getScheme().equals("udp")) {
      return new SyslogDatagrams(syslog, System.err::println);
    }
    SocketFactory sockets =
        syslog.getScheme().equals("tls") ? Collectors.tls(trusted) : SocketFactory.getDefault();
    SyslogSender sender = new SyslogSender(syslog, sockets, System.err::println);
    Thread.ofPlatform().daemon().name("syslog").start(sender);
    return sender;
  }
}
