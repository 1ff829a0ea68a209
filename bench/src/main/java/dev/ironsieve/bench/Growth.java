package dev.ironsieve.bench;

import dev.ironsieve.bench.peers.DiagramPeer;
import dev.ironsieve.bench.peers.Peer;
import dev.ironsieve.bench.peers.SolverPeer;
import dev.ironsieve.core.analysis.Finding;
import dev.ironsieve.core.analysis.LiveAnalysis;
import dev.ironsieve.core.rulebase.Rulebase;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import picocli.CommandLine;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/**
 * How the time of an analysis grows with the rules, beside its peers on the same input. Each run is
 * a separate, new JVM with 1 GB of heap; the rulebase is made first and not counted.
 */
@Command(
    name = "growth",
    mixinStandardHelpOptions = true,
    description = "Times all findings of generated rulebases, each in a fresh JVM, and the peers.",
    footer = {
      "The peers only find out which rules decide anything; the analysis finds everything.",
      "A peer that is not done in its time is reported with the number of rules it finished."
    })
final class Growth implements Runnable {
  private static final double NANOS_PER_SECOND = 1e9;
  private static final int MOST_EDGES = 20_000_000; // of the diagram; more do not fit the heap

  /** More are a large file for the command line. */
  private static final int MOST_OF_SMALL = 50_000;

  private static final int FIRST_WITH_CACHE = 25; // release of Java
  private static final int TRAINING = 150; // rules, as many as the command line is trained with

  /** What is timed. */
  enum Way {
    /** All findings from the rules alone. */
    ANALYSIS,
    DIAGRAM,
    SOLVER
  }

  /**
   * What one run found out.
   *
   * @param rules how many rules it got through
   * @param seconds for these
   * @param again the same once more in the same JVM; for the analysis only
   */
  record Run(int rules, double seconds, double again) {}

  /**
   * The middle of some runs.
   *
   * @param all how many rules there are
   */
  record Point(Way way, Shape shape, int all, Run median, double worst) {
    boolean isWhole() {
      return median.rules == all;
    }
  }

  @Parameters(
      description = "Numbers of rules; 100, 1000, 10000 and 100000 if left out.",
      paramLabel = "RULES")
  private List<Integer> sizes = List.of(100, 1000, 10_000, 100_000);

  @Option(names = "--runs", description = "Runs of the analysis at each size; 5 if left out.")
  private int runs = 5;

  @Option(
      names = "--seconds",
      description = "Time that a peer may take, once at each size; 60 if left out.")
  private int seconds = 60;

  @Option(names = "--plot", paramLabel = "FILE.png", description = "Also draws the growth.")
  private Path plot;

  private Path classes; // as a first run left them; null until there was one

  @Option(names = "--child", hidden = true)
  private Way child;

  @Option(names = "--shape", hidden = true)
  private Shape shape;

  @Override
  public void run() {
    try {
      if (child == null) {
        measureAll();
      } else {
        Run run = measure(new RulebaseGenerator(42, shape).rulebase(sizes.getFirst()));
        System.out.println(run.rules + " " + run.seconds + " " + run.again);
      }
    } catch (IOException | InterruptedException e) {
      throw new IllegalStateException(e);
    }
  }

  private Run measure(Rulebase base) {
    int rules = base.rules().size();
    if (child == Way.ANALYSIS) {
      return new Run(rules, analysis(base), analysis(base));
    }
    long start = System.nanoTime();
    long end = start + (long) (seconds * NANOS_PER_SECOND);
    int settled = 0;
    try (Peer peer =
        child == Way.DIAGRAM ? new DiagramPeer(base, MOST_EDGES) : new SolverPeer(base)) {
      while (settled < rules && System.nanoTime() < end && peer.next() != Peer.Answer.GAVE_UP) {
        settled++;
      }
    }
    return new Run(settled, (System.nanoTime() - start) / NANOS_PER_SECOND, 0);
  }

  private static double analysis(Rulebase base) {
    long start = System.nanoTime();
    List<Finding> found = new LiveAnalysis(base).findings();
    long end = System.nanoTime();
    if (found.isEmpty()) {
      throw new IllegalStateException("nothing was found in generated rules");
    }
    return (end - start) / NANOS_PER_SECOND;
  }

  private void measureAll() throws IOException, InterruptedException {
    System.out.printf(
        "%-6s %8s  %-9s %9s %9s  %s%n", "shape", "rules", "way", "median", "worst", "");
    List<Point> points = new ArrayList<>();
    for (Shape each : List.of(Shape.EASY, Shape.HARD)) {
      for (int size : sizes) {
        Point own = null;
        for (Way way : Way.values()) {
          boolean fellShort =
              points.stream().anyMatch(p -> p.way == way && p.shape == each && !p.isWhole());
          if (fellShort) {
            continue; // it will not do better on more rules
          }
          Point point = point(way, each, size);
          points.add(point);
          own = way == Way.ANALYSIS ? point : own;
          System.out.printf(
              "%-6s %8d  %-9s %7.2f s %7.2f s  %s%n",
              each, size, way, point.median.seconds, point.worst, remark(point, own));
        }
      }
    }
    if (classes != null) {
      Files.delete(classes);
    }
    if (plot != null) {
      GrowthPlot.draw(points, plot);
    }
  }

  private static String remark(Point point, Point own) {
    if (point == own) {
      return "once more in the same JVM %.2f s".formatted(point.median.again);
    }
    double ratio = point.median.seconds / own.median.seconds;
    return point.isWhole()
        ? "%.1f times the analysis".formatted(ratio)
        : "gave up after %d rules, %.1f times the analysis of all"
            .formatted(point.median.rules, ratio);
  }

  private Point point(Way way, Shape shape, int size) throws IOException, InterruptedException {
    int times = way == Way.ANALYSIS ? runs : 1;
    Run[] all = new Run[times];
    for (int i = 0; i < times; i++) {
      all[i] = fork(way, shape, size);
    }
    Arrays.sort(all, (a, b) -> Double.compare(a.seconds, b.seconds));
    return new Point(way, shape, size, all[times / 2], all[times - 1].seconds);
  }

  /** The options with which {@code iron-sieve check} starts; peers have both compilers. */
  private List<String> asTheCommandLine(Way way, int size)
      throws IOException, InterruptedException {
    List<String> options = new ArrayList<>();
    options.add(Path.of(System.getProperty("java.home"), "bin", "java").toString());
    options.addAll(List.of("-Xmx1g", "--enable-native-access=ALL-UNNAMED"));
    options.addAll(List.of("-cp", System.getProperty("java.class.path")));
    if (way == Way.ANALYSIS && size <= MOST_OF_SMALL) {
      options.addAll(optionsFor("small"));
      if (Runtime.version().feature() >= FIRST_WITH_CACHE) {
        options.addAll(List.of("-Xlog:aot=off", "-Xlog:cds=off"));
        if (classes == null) {
          classes = Files.createTempFile("classes", ".aot");
          List<String> training = new ArrayList<>(options);
          training.add("-XX:AOTCacheOutput=" + classes);
          training.addAll(asked(way, Shape.HARD, TRAINING));
          new ProcessBuilder(training)
              .redirectErrorStream(true)
              .redirectOutput(ProcessBuilder.Redirect.DISCARD)
              .start()
              .waitFor();
        }
        options.add("-XX:AOTCache=" + classes);
      }
    } else if (way == Way.ANALYSIS) {
      options.addAll(optionsFor("large"));
    } else {
      options.add("-XX:+UseParallelGC");
    }
    return options;
  }

  /** The options of the command line for files of a size. */
  private static List<String> optionsFor(String size) throws IOException {
    try (BufferedReader lines =
        new BufferedReader(
            new InputStreamReader(
                Growth.class.getResourceAsStream("/options/" + size + ".options"),
                StandardCharsets.UTF_8))) {
      return lines.lines().filter(line -> !line.startsWith("#")).toList();
    }
  }

  private List<String> asked(Way way, Shape shape, int size) {
    return List.of(
        Main.class.getName(),
        "growth",
        "--child=" + way,
        "--shape=" + shape,
        "--seconds=" + seconds,
        size + "");
  }

  private Run fork(Way way, Shape shape, int size) throws IOException, InterruptedException {
    List<String> command = new ArrayList<>(asTheCommandLine(way, size));
    command.addAll(asked(way, shape, size));
    Process process =
        new ProcessBuilder(command).redirectError(ProcessBuilder.Redirect.INHERIT).start();
    String line;
    try (BufferedReader out =
        new BufferedReader(
            new InputStreamReader(process.getInputStream(), StandardCharsets.UTF_8))) {
      line = out.readLine();
    }
    if (process.waitFor() != 0 || line == null) {
      throw new IllegalStateException("a run failed: %s %s %d".formatted(way, shape, size));
    }
    String[] parts = line.split(" ");
    return new Run(
        Integer.parseInt(parts[0]), Double.parseDouble(parts[1]), Double.parseDouble(parts[2]));
  }

  static int execute(String[] args) {
    return new CommandLine(new Growth()).execute(args);
  }
}
