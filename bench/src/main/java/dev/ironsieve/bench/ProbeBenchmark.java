package dev.ironsieve.bench;

import dev.ironsieve.core.matcher.Matcher;
import dev.ironsieve.core.matcher.Trace;
import dev.ironsieve.core.model.AddressItem;
import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Rulebase;
import dev.ironsieve.core.model.ServiceItem;
import dev.ironsieve.core.model.ServiceLiteral;
import dev.ironsieve.core.model.Vocabulary;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
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

  private Rulebase base;
  private Matcher matcher;
  private List<Rule> all;
  private List<Connection> connections;
  private Map<String, Set<String>> members; // of each set and value, by its name
  private int next;

  /** A generated rulebase and connections between its zones. */
  @Setup
  public void generate() {
    RulebaseGenerator generator = new RulebaseGenerator(42, shape);
    base = generator.rulebase(rules);
    all = base.rules();
    matcher = new Matcher(base);
    members = new HashMap<>();
    for (Vocabulary vocabulary : base.vocabularies()) {
      vocabulary.values().forEach(value -> members.put(value, Set.of(value)));
      for (Vocabulary.Term term : vocabulary.terms()) {
        Set<String> names = new HashSet<>();
        term.members().forEach(value -> names.add(vocabulary.values().get(value)));
        members.put(term.name(), names);
      }
    }
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
    Connection c = connection();
    for (Rule rule : all) {
      if (rule.enabled()
          && says(rule.fromZones(), c.from().zone())
          && says(rule.toZones(), c.to().zone())
          && holds(rule.fromAddresses(), c.from())
          && holds(rule.toAddresses(), c.to())
          && holds(rule.services(), c)
          && holdsTerms(rule, c)) {
        return rule;
      }
    }
    return null;
  }

  private boolean holdsTerms(Rule rule, Connection c) {
    for (Map.Entry<Coordinate, Criterion<String>> asked : rule.terms().entrySet()) {
      String value = c.terms().get(asked.getKey());
      boolean holds = false;
      for (String item : asked.getValue().items()) {
        holds |= item.equals(value) || members.get(item).contains(value);
      }
      if (!holds) {
        return false;
      }
    }
    return true;
  }

  private static boolean says(Criterion<String> zones, String zone) {
    return zones.items().isEmpty() || zones.items().contains(zone);
  }

  private static boolean holds(Criterion<AddressItem> criterion, Connection.Endpoint end) {
    if (criterion.items().isEmpty()) {
      return true;
    }
    for (AddressItem item : criterion.items()) {
      if (item instanceof AddressItem.Literal literal && literal.range().contains(end.address())) {
        return true;
      }
    }
    return false;
  }

  private static boolean holds(Criterion<ServiceItem> criterion, Connection c) {
    if (criterion.items().isEmpty()) {
      return true;
    }
    for (ServiceItem item : criterion.items()) {
      if (item instanceof ServiceLiteral s
          && s.protocol() == c.protocol()
          && s.firstDetail() <= c.detail()
          && c.detail() <= s.lastDetail()
          && s.firstSource() <= c.sourcePort()
          && c.sourcePort() <= s.lastSource()) {
        return true;
      }
    }
    return false;
  }
}
