package dev.ironsieve.bench;

import dev.ironsieve.core.matcher.Matcher;
import dev.ironsieve.core.matcher.Trace;
import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.rulebase.Rulebase;
import java.util.List;
import java.util.concurrent.TimeUnit;
import java.util.stream.Stream;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Param;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;

/** One probe; the peer is a plain linear scan over the rules as they were written. */
@State(Scope.Thread)
@BenchmarkMode(Mode.SampleTime)
@OutputTimeUnit(TimeUnit.MICROSECONDS)
@Warmup(iterations = 3, time = 1)
@Measurement(iterations = 5, time = 1)
@Fork(1)
public class ProbeBenchmark {
  @Param({"1000"})
  private int rules;

  @Param({"EASY", "HARD"})
  private Shape shape;

  private static final int CONNECTIONS = 1024;

  private Matcher matcher;
  private LinearScan scan;
  private List<Connection> connections;
  private int next;

  /** A generated rulebase and connections between its zones. */
  @Setup
  public void generate() {
    RulebaseGenerator generator = new RulebaseGenerator(42, shape);
    Rulebase base = generator.rulebase(rules);
    scan = new LinearScan(base);
    matcher = new Matcher(base);
    connections = Stream.generate(generator::connection).limit(CONNECTIONS).toList();
  }

  private Connection connection() {
    next = (next + 1) % CONNECTIONS;
    return connections.get(next);
  }

  /** The verdict with why each rule above did not decide. */
  @Benchmark
  public Trace trace() {
    return matcher.trace(connection());
  }

  /** The verdict alone. */
  @Benchmark
  public Object decide() {
    return matcher.decide(connection());
  }

  /** The peer: the verdict alone, rule by rule and item by item. */
  @Benchmark
  public Object linearScan() {
    return scan.decide(connection());
  }
}
