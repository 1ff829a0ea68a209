package dev.ironsieve.bench;

import java.io.IOException;
import java.util.Arrays;
import java.util.Collection;
import java.util.Map;
import java.util.TreeMap;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import org.openjdk.jmh.results.RunResult;
import org.openjdk.jmh.runner.Runner;
import org.openjdk.jmh.runner.RunnerException;
import org.openjdk.jmh.runner.options.CommandLineOptionException;
import org.openjdk.jmh.runner.options.CommandLineOptions;
import org.openjdk.jmh.util.Statistics;
import picocli.CommandLine;

/**
 * Runs the benchmarks, and sets each beside its peer. Arguments are those of JMH; a name of {@link
 * #WHOLE}, or {@code growth}, asks for one of ours instead.
 */
public final class Main {
  private static final Map<String, String> PEERS =
      Map.of(
          "EditBenchmark.live", "EditBenchmark.anew",
          "ProbeBenchmark.decide", "ProbeBenchmark.linearScan",
          "ProbeBenchmark.trace", "ProbeBenchmark.linearScan");

  /** Benchmarks that measure a whole run, by name. */
  private static final Map<String, Supplier<Object>> WHOLE =
      Map.of(
          "recognition", Recognition::new,
          "sources", Sources::new,
          "directory", DirectoryImport::new,
          "questions", Questions::new,
          "load", ServerLoad::new,
          "log", LogIntake::new,
          "publish", PublishTime::new,
          "decisions", GatewayDecisions::new);

  private Main() {}

  public static void main(String[] args)
      throws RunnerException, CommandLineOptionException, IOException {
    if (args.length > 0 && args[0].equals("growth")) {
      System.exit(Growth.execute(Arrays.copyOfRange(args, 1, args.length)));
    }
    if (args.length > 0 && WHOLE.containsKey(args[0])) {
      String[] rest = Arrays.copyOfRange(args, 1, args.length);
      System.exit(new CommandLine(WHOLE.get(args[0]).get()).execute(rest));
    }
    Collection<RunResult> results = new Runner(new CommandLineOptions(args)).run();
    Map<String, Statistics> all = new TreeMap<>();
    Map<String, String> units = new TreeMap<>();
    for (RunResult result : results) {
      String name = result.getParams().getBenchmark().replaceAll(".*\\.(\\w+\\.\\w+)$", "$1");
      String rules =
          result.getParams().getParamsKeys().stream()
              .map(result.getParams()::getParam)
              .collect(Collectors.joining(" "));
      all.put(name + " " + rules, result.getPrimaryResult().getStatistics());
      units.put(name + " " + rules, result.getPrimaryResult().getScoreUnit());
    }
    System.out.printf(
        "%n%-26s %20s %12s %12s %12s  %s%n", "what", "of", "median", "95th", "worst", "peer");
    all.forEach(
        (key, time) -> {
          String name = key.substring(0, key.indexOf(' '));
          String rules = key.substring(key.indexOf(' ') + 1);
          Statistics peer = PEERS.containsKey(name) ? all.get(PEERS.get(name) + " " + rules) : null;
          String ratio =
              peer == null
                  ? ""
                  : "%.2f times the median of %s"
                      .formatted(time.getPercentile(50) / peer.getPercentile(50), PEERS.get(name));
          System.out.printf(
              "%-26s %20s %9.3f %s %9.3f %s %9.3f %s  %s%n",
              name,
              rules,
              time.getPercentile(50),
              units.get(key).replace("/op", ""),
              time.getPercentile(95),
              units.get(key).replace("/op", ""),
              time.getMax(),
              units.get(key).replace("/op", ""),
              ratio);
        });
  }
}
