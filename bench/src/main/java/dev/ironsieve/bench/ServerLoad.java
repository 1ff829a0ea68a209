package dev.ironsieve.bench;

import com.fasterxml.jackson.databind.JsonNode;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.ServiceItem;
import dev.ironsieve.core.model.Vocabulary;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.formats.Json;
import dev.ironsieve.formats.document.FromModel;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.Socket;
import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpClient;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Queue;
import java.util.Random;
import java.util.TreeMap;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.ThreadLocalRandom;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.atomic.AtomicLong;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** How long edits take on a running server, alone and while others watch and ask. */
@Command(
    name = "load",
    mixinStandardHelpOptions = true,
    description = {
      "Two people edit a large draft on a running server of the demo: alone, then while event",
      "streams are open, some of them never read, and then while viewers also ask for repairs,",
      "effects, people, applications and the draft itself. Each phase is set beside the first."
    })
final class ServerLoad implements Runnable {
  private static final String PASSWORD = "brindlemere-demo";
  private static final Pattern VERSION = Pattern.compile("\"version\" ?: ?(\\d+)");
  private static final int FIRST_PORT = 2000;
  private static final int LAST_PORT = 60_000;
  private static final double NANOS_PER_MILLI = 1e6;
  private static final int REFUSED = 429;
  private static final int UNAVAILABLE = 503;
  private static final Duration REFUSED_WAIT = Duration.ofSeconds(1);

  @Parameters(paramLabel = "ADDRESS", description = "Of the server, such as http://127.0.0.1:8080.")
  private URI server;

  @Option(names = "--rules", description = "In the draft; 10,000 if left out.")
  private int rules = 10_000;

  @Option(names = "--viewers", description = "Who ask one question after another; 10 if left out.")
  private int viewers = 10;

  @Option(names = "--streams", description = "Of events that are read; 200 if left out.")
  private int streams = 200;

  @Option(names = "--unread", description = "Streams of events never read; 10 if left out.")
  private int unread = 10;

  @Option(names = "--seconds", description = "For each phase; 45 if left out.")
  private int seconds = 45;

  @Option(names = "--pause", description = "Milliseconds between edits; 100 if left out.")
  private int pause = 100;

  @Option(names = "--process", description = "Id of the server's process, to tell its memory.")
  private String process;

  private Rulebase base;
  private String draft;
  private final List<String[]> findings = new ArrayList<>();
  private final Map<String, List<Double>> answered = new TreeMap<>();
  private final AtomicInteger refused = new AtomicInteger();
  private final AtomicInteger late = new AtomicInteger();
  private final AtomicInteger failed = new AtomicInteger();
  private volatile boolean asking;
  private volatile boolean editing;

  @Override
  public void run() {
    base = new RulebaseGenerator(42, Shape.HARD).rulebase(rules);
    try (HttpClient http = HttpClient.newHttpClient();
        ExecutorService threads = Executors.newVirtualThreadPerTaskExecutor()) {
      LoadClient ruth = client(http, "ruth.okell");
      LoadClient tomas = client(http, "tomas.wren");
      LoadClient viewer = client(http, "ines.calder");
      open(ruth);
      List<LoadClient> editors = List.of(ruth, tomas);
      edit(editors, 3); // the first edits warm the server up
      Timings alone = edit(editors, seconds);
      tell("alone", alone, alone);

      AtomicLong bytes = new AtomicLong();
      List<Socket> open = new ArrayList<>();
      for (int i = 0; i < streams + unread; i++) {
        Socket stream = viewer.again("stream " + i).stream(draft + "/events");
        open.add(stream);
        if (i < streams) {
          threads.submit(() -> bytes.addAndGet(LoadClient.drain(stream)));
        }
      }
      tell("with " + open.size() + " event streams", edit(editors, seconds), alone);

      asking = true;
      for (int i = 0; i < viewers; i++) {
        LoadClient asker = viewer.again("viewer " + i);
        threads.submit(() -> ask(asker));
      }
      tell("and " + viewers + " viewers asking", edit(editors, seconds), alone);
      asking = false;
      tell("streams only, once more", edit(editors, seconds), alone);
      for (Socket stream : open) {
        stream.close();
      }
      threads.shutdown();
      threads.awaitTermination(1, TimeUnit.MINUTES);
      tellQuestions();
      System.out.printf("events read by %d streams: %d kB%n", streams, bytes.get() / 1000);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    }
  }

  private LoadClient client(HttpClient http, String name) {
    LoadClient out = new LoadClient(http, server, name);
    out.signIn(name, PASSWORD);
    return out;
  }

  private void open(LoadClient editor) {
    String imported =
        editor
            .post(
                "/api/rulebases/import?name=load-" + System.currentTimeMillis(),
                Json.write(FromModel.rulebase(base)))
            .expected();
    Matcher id = Pattern.compile("\"id\" ?: ?(\\d+)").matcher(imported);
    if (!id.find()) {
      throw new IllegalStateException("no id in " + imported);
    }
    draft = "/api/rulebases/" + id.group(1) + "/draft";
    String text = editor.get(draft).expected();
    Json.read(text.getBytes(StandardCharsets.UTF_8), JsonNode.class)
        .get("standings")
        .properties()
        .forEach(
            standing ->
                standing
                    .getValue()
                    .get("findings")
                    .forEach(
                        finding ->
                            findings.add(
                                new String[] {standing.getKey(), finding.get("kind").asText()})));
    System.out.printf(
        "%d hard rules; the draft is %d kB; %d findings%n",
        rules, text.length() / 1000, findings.size());
  }

  /** The editors change disjoint sets of rules, each one rule after another. */
  private Timings edit(List<LoadClient> editors, int length) throws InterruptedException {
    Queue<Double> times = new ConcurrentLinkedQueue<>();
    editing = true;
    List<Thread> running = new ArrayList<>();
    for (int i = 0; i < editors.size(); i++) {
      int which = i;
      LoadClient editor = editors.get(i);
      running.add(Thread.ofVirtual().start(() -> type(editor, which, editors.size(), times)));
    }
    Thread.sleep(Duration.ofSeconds(length));
    editing = false;
    for (Thread thread : running) {
      thread.join();
    }
    return new Timings(times.stream().mapToDouble(Double::doubleValue).toArray());
  }

  private void type(LoadClient editor, int which, int editors, Queue<Double> times) {
    Random random = new Random();
    long version = 0;
    while (editing) {
      Rule rule = base.rules().get(random.nextInt(rules / editors) * editors + which);
      Criterion<ServiceItem> port =
          Criterion.of(ServiceItem.parse("tcp/" + random.nextInt(FIRST_PORT, LAST_PORT)));
      Rule changed =
          rule.matching(
              rule.fromZones(), rule.fromAddresses(), rule.toZones(), rule.toAddresses(), port);
      if (version == 0) {
        version = version(editor.get(draft).expected());
      }
      String body =
          "{\"version\": %d, \"edit\": {\"kind\": \"replaceRules\", \"rules\": [%s]}}"
              .formatted(version, Json.line(FromModel.rule(changed)));
      long start = System.nanoTime();
      String answer = editor.patch(draft, body).expected();
      times.add((System.nanoTime() - start) / NANOS_PER_MILLI);
      version = version(answer);
      sleep(pause);
    }
  }

  private static long version(String text) {
    Matcher found = VERSION.matcher(text);
    if (!found.find()) {
      throw new IllegalStateException("no version in the answer");
    }
    return Long.parseLong(found.group(1));
  }

  private void ask(LoadClient viewer) {
    while (asking) {
      String[] question = question();
      long start = System.nanoTime();
      LoadClient.Answer answer = viewer.get(draft + question[1]);
      double millis = (System.nanoTime() - start) / NANOS_PER_MILLI;
      if (answer.status() == REFUSED || answer.status() == UNAVAILABLE) {
        (answer.status() == REFUSED ? refused : late).incrementAndGet();
        sleep((int) REFUSED_WAIT.toMillis());
      } else if (answer.status() / 100 == 2) {
        synchronized (answered) {
          answered.computeIfAbsent(question[0], kind -> new ArrayList<>()).add(millis);
        }
      } else if (failed.incrementAndGet() == 1) {
        System.out.println("first failure: " + question[1] + " " + answer);
      }
    }
  }

  /** A question's kind and its path. */
  private String[] question() {
    Random random = ThreadLocalRandom.current();
    return switch (random.nextInt(5)) {
      case 0 -> {
        String[] finding = findings.get(random.nextInt(findings.size()));
        yield new String[] {"repairs", "/rules/%s/repairs/%s".formatted(finding[0], finding[1])};
      }
      case 1 -> {
        String name = base.zones().get(random.nextInt(base.zones().size())).name();
        yield new String[] {"effects of a removal", "/objects/zone/" + encoded(name) + "/removal"};
      }
      case 2 -> new String[] {"people", "/people/" + encoded(value(Coordinate.PERSON, random))};
      case 3 ->
          new String[] {
            "applications", "/applications/" + encoded(value(Coordinate.APPLICATION, random))
          };
      default -> new String[] {"drafts", ""};
    };
  }

  private String value(Coordinate coordinate, Random random) {
    Vocabulary vocabulary =
        base.vocabularies().stream()
            .filter(v -> v.coordinate() == coordinate)
            .findFirst()
            .orElseThrow();
    return vocabulary.values().get(random.nextInt(vocabulary.values().size()));
  }

  private static String encoded(String text) {
    return URLEncoder.encode(text, StandardCharsets.UTF_8).replace("+", "%20");
  }

  private static void sleep(int millis) {
    try {
      Thread.sleep(millis);
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    }
  }

  private void tell(String phase, Timings edits, Timings alone) throws IOException {
    System.out.printf(
        "%-30s %4d edits: median %7.1f ms, 99th percentile %8.1f ms (%.2f times alone), worst %8.1f ms%s%n",
        phase,
        edits.millis().length,
        edits.median(),
        edits.percentile(99),
        edits.percentile(99) / alone.percentile(99),
        edits.worst(),
        memory());
  }

  private void tellQuestions() {
    answered.forEach(
        (kind, millis) -> {
          Timings times = new Timings(millis.stream().mapToDouble(Double::doubleValue).toArray());
          System.out.printf(
              "%d questions for %s: median %.0f ms, worst %.0f ms%n",
              millis.size(), kind, times.median(), times.worst());
        });
    System.out.printf(
        "refused as too many: %d, as too late: %d; failed: %d%n",
        refused.get(), late.get(), failed.get());
  }

  private String memory() throws IOException {
    if (process == null) {
      return "";
    }
    return Files.readAllLines(Path.of("/proc", process, "status")).stream()
        .filter(line -> line.startsWith("VmRSS") || line.startsWith("VmHWM"))
        .map(line -> line.replaceAll("\\s+", " "))
        .collect(Collectors.joining(", ", ", ", ""));
  }
}
