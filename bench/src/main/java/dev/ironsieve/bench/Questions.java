package dev.ironsieve.bench;

import dev.ironsieve.core.analysis.LiveAnalysis;
import dev.ironsieve.core.difference.Aspect;
import dev.ironsieve.core.difference.Difference;
import dev.ironsieve.core.difference.Differences;
import dev.ironsieve.core.edit.Edit;
import dev.ironsieve.core.matcher.Matcher;
import dev.ironsieve.core.model.AddressItem;
import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.reach.ReachQuestion;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.ruleindex.RuleIndex;
import dev.ironsieve.core.space.Space;
import dev.ironsieve.formats.csv.ConnectionCsv;
import java.io.PrintWriter;
import java.io.StringReader;
import java.io.StringWriter;
import java.lang.ref.Reference;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.stream.Stream;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;

/** How long the questions take that people ask of a rulebase that is analysed already. */
@Command(
    name = "questions",
    mixinStandardHelpOptions = true,
    description = {
      "Asks for places for a rule, for the difference after fifty edits, and what an address can",
      "reach, each beside analysing everything anew; looks connections up, beside going down the",
      "rules, and tells what that keeps in memory; and answers lines of comma-separated values,",
      "beside splitting them."
    })
final class Questions implements Runnable {
  private static final int EDITS = 50;
  private static final int POINTS = 4096;
  private static final int ASKED = 200_000; // until the matcher is measured
  private static final double MEGA = 1e6;
  private static final int PASSES = 25; // over all points in one run
  private static final int SCANNED = 64;
  private static final double MICROS = 1e3; // in a millisecond
  private static final int WARM = 3;

  @Option(names = "--rules", description = "In the rulebase; 10,000 if left out.")
  private int rules = 10_000;

  @Option(names = "--runs", description = "Of each question; 20 if left out.")
  private int runs = 20;

  @Option(names = "--lines", description = "Of connections; 500,000 if left out.")
  private int lines = 500_000;

  @Override
  public void run() {
    for (Shape shape : List.of(Shape.EASY, Shape.HARD)) {
      ask(shape);
    }
  }

  private void ask(Shape shape) {
    RulebaseGenerator generator = new RulebaseGenerator(42, shape);
    Rulebase base = generator.rulebase(rules);
    LiveAnalysis[] live = new LiveAnalysis[1];
    Timings anew = Timings.of(WARM, run -> live[0] = new LiveAnalysis(base));
    System.out.printf("%d %s rules, analysed anew: %s%n", rules, shape, anew);
    Random random = new Random(42);
    List<String> ids =
        Stream.generate(() -> base.rules().get(random.nextInt(rules)).id())
            .limit(runs + (long) WARM)
            .toList();
    for (int i = 0; i < WARM; i++) {
      live[0].placement(ids.get(runs + i));
    }
    tell("places for a rule", Timings.of(runs, run -> live[0].placement(ids.get(run))), anew);
    difference(generator, live[0].index(), base, random, anew);
    reach(live[0].index(), random, anew);
    lookUps(generator, base, live[0].index());
    memory(generator, base);
    lines(generator, base);
  }

  private static void tell(String what, Timings times, Timings anew) {
    System.out.printf(
        "  %-28s %s, worst %.1f ms; %.3f times analysing anew%n",
        what, times, times.worst(), times.median() / anew.median());
  }

  private void difference(
      RulebaseGenerator generator, RuleIndex index, Rulebase base, Random random, Timings anew) {
    List<Rulebase> edited = new ArrayList<>();
    for (int run = 0; run < runs; run++) {
      Rulebase next = base;
      for (int edit = 0; edit < EDITS; edit++) {
        String id = base.rules().get(random.nextInt(rules)).id();
        next = new Edit.ReplaceRules(List.of(generator.rule(id))).apply(next);
      }
      edited.add(next);
    }
    Difference[] last = new Difference[1];
    for (int i = 0; i < WARM; i++) {
      Differences.between(index, base, edited.get(i), Aspect.VERDICT, Differences.STEPS);
    }
    Timings times =
        Timings.of(
            runs,
            run ->
                last[0] =
                    Differences.between(
                        index, base, edited.get(run), Aspect.VERDICT, Differences.STEPS));
    tell("difference after 50 edits", times, anew);
    System.out.printf(
        "    (the last one: %d parts%s)%n",
        last[0].parts().size(), last[0].complete() ? "" : ", more left");
  }

  /** What one address can reach. */
  private void reach(RuleIndex index, Random random, Timings anew) {
    List<Rule> patterns =
        Stream.generate(() -> from("10.%d.%d.9".formatted(random.nextInt(64), random.nextInt(256))))
            .limit(runs)
            .toList();
    Timings times =
        Timings.of(
            runs,
            run -> ReachQuestion.ask(index, patterns.get(run), Space.TO, ReachQuestion.STEPS));
    tell("what an address can reach", times, anew);
  }

  private static Rule from(String address) {
    Rule any = Rule.matchingAll("question", "question", Verdict.ALLOW);
    return any.matching(
        any.fromZones(),
        Criterion.of(AddressItem.parse(address)),
        any.toZones(),
        any.toAddresses(),
        any.services());
  }

  private void lookUps(RulebaseGenerator generator, Rulebase base, RuleIndex index) {
    List<Connection> connections =
        Stream.generate(generator::connection)
            .filter(connection -> index.space().point(connection) != null)
            .limit(POINTS)
            .toList();
    int[][] points = connections.stream().map(index.space()::point).toArray(int[][]::new);
    Matcher matcher = new Matcher(index);
    int[] kept = new int[1]; // so that nothing is left out
    Timings laidOut =
        Timings.of(
            runs + WARM,
            run -> {
              for (int pass = 0; pass < PASSES; pass++) {
                for (int[] point : points) {
                  kept[0] += index.first(point);
                }
              }
            });
    Timings whole =
        Timings.of(
            runs + WARM,
            run -> {
              for (int pass = 0; pass < PASSES; pass++) {
                kept[0] += matcher.positions(connections)[0];
              }
            });
    LinearScan scan = new LinearScan(base);
    Timings scanned =
        Timings.of(
            WARM + WARM,
            run -> {
              for (Connection connection : connections.subList(0, SCANNED)) {
                kept[0] += scan.decide(connection) == null ? 1 : 0;
              }
            });
    double linear = scanned.median() * MICROS / SCANNED;
    tellLookUp("look-up of a point", laidOut, linear);
    tellLookUp("look-up of a connection", whole, linear);
    if (kept[0] == 42) {
      System.out.println();
    }
  }

  /** What looking up connections keeps in memory, beside the rulebase. */
  private static void memory(RulebaseGenerator generator, Rulebase base) {
    double before = used();
    Matcher matcher = new Matcher(base);
    double made = used();
    for (int i = 0; i < ASKED / POINTS; i++) {
      matcher.positions(Stream.generate(generator::connection).limit(POINTS).toList());
    }
    double asked = used();
    System.out.printf(
        "  %-28s %.0f MB when made, %.0f MB after %d connections%n",
        "matcher in memory", made - before, asked - before, ASKED / POINTS * POINTS);
    Reference.reachabilityFence(matcher);
  }

  /** Megabytes of the heap that are still needed. */
  private static double used() {
    System.gc();
    return (Runtime.getRuntime().totalMemory() - Runtime.getRuntime().freeMemory()) / MEGA;
  }

  private static void tellLookUp(String what, Timings times, double linear) {
    double micros = times.median() * MICROS / POINTS / PASSES;
    System.out.printf(
        "  %-28s %.3f us (95 %%: %.3f us), %.2f million/s; going down the rules %.0f us, %.0f"
            + " times%n",
        what, micros, times.most() * MICROS / POINTS / PASSES, 1 / micros, linear, linear / micros);
  }

  private void lines(RulebaseGenerator generator, Rulebase base) {
    StringWriter written = new StringWriter();
    ConnectionLines.write(generator, lines, new PrintWriter(written));
    String text = written.toString();
    Matcher matcher = new Matcher(base);
    long[] sum = new long[1];
    int times = Math.min(runs, 5);
    Timings answered =
        Timings.of(
            times + 1,
            run ->
                ConnectionCsv.read(
                    "lines",
                    new StringReader(text),
                    base,
                    matcher::positions,
                    positions -> sum[0] += positions.length));
    Timings split = Timings.of(times, run -> sum[0] += text.lines().mapToInt(String::length).sum());
    System.out.printf(
        "  %-28s %.0f lines/s on %d processors; %.1f times splitting into lines%n",
        "lines of connections",
        lines / answered.median() * MICROS,
        Runtime.getRuntime().availableProcessors(),
        answered.median() / split.median());
  }
}
