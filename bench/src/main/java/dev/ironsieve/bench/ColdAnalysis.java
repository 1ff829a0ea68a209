package dev.ironsieve.bench;

import dev.ironsieve.core.analysis.LiveAnalysis;
import dev.ironsieve.core.model.Rulebase;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.Arrays;

/**
 * All findings of a generated rulebase in a JVM that has not done anything else: each run is a JVM
 * of its own with 1 GB of heap, in which the rulebase is made first and not counted. The peer is
 * the same question asked once more in the same JVM.
 */
final class ColdAnalysis {
  private static final int RUNS = 5;
  private static final double NANOS_PER_SECOND = 1e9;

  private ColdAnalysis() {}

  /**
   * @param args sizes, or nothing for 1000 and 10000; {@code --child SHAPE RULES} for one run
   */
  static void run(String[] args) throws IOException, InterruptedException {
    if (args.length == 3 && args[0].equals("--child")) {
      child(Shape.valueOf(args[1]), Integer.parseInt(args[2]));
      return;
    }
    String[] sizes = args.length == 0 ? new String[] {"1000", "10000"} : args;
    System.out.printf(
        "%-12s %8s %10s %10s %14s%n", "shape", "rules", "median", "95th", "once more");
    for (Shape shape : new Shape[] {Shape.EASY, Shape.HARD}) {
      for (String size : sizes) {
        double[] cold = new double[RUNS];
        double[] again = new double[RUNS];
        for (int i = 0; i < RUNS; i++) {
          double[] times = fork(shape, size);
          cold[i] = times[0];
          again[i] = times[1];
        }
        Arrays.sort(cold);
        Arrays.sort(again);
        System.out.printf(
            "%-12s %8s %8.2f s %8.2f s %12.2f s%n",
            shape, size, cold[RUNS / 2], cold[RUNS - 1], again[RUNS / 2]);
      }
    }
  }

  private static void child(Shape shape, int rules) {
    Rulebase base = new RulebaseGenerator(42, shape).rulebase(rules);
    System.out.println(seconds(base) + " " + seconds(base));
  }

  private static double seconds(Rulebase base) {
    long start = System.nanoTime();
    LiveAnalysis analysis = new LiveAnalysis(base);
    long end = System.nanoTime();
    if (analysis.order().size() != base.rules().size()) {
      throw new IllegalStateException("not all rules were analysed");
    }
    return (end - start) / NANOS_PER_SECOND;
  }

  private static double[] fork(Shape shape, String rules) throws IOException, InterruptedException {
    Process process =
        new ProcessBuilder(
                Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                "-Xmx1g",
                "-cp",
                System.getProperty("java.class.path"),
                Main.class.getName(),
                "cold",
                "--child",
                shape.name(),
                rules)
            .redirectError(ProcessBuilder.Redirect.INHERIT)
            .start();
    String line;
    try (BufferedReader out =
        new BufferedReader(
            new InputStreamReader(process.getInputStream(), StandardCharsets.UTF_8))) {
      line = out.readLine();
    }
    if (process.waitFor() != 0 || line == null) {
      throw new IllegalStateException("a run failed: " + shape + " " + rules);
    }
    return Arrays.stream(line.split(" ")).mapToDouble(Double::parseDouble).toArray();
  }
}
