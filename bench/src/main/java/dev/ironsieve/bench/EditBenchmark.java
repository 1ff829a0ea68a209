package dev.ironsieve.bench;

import dev.ironsieve.core.analysis.LiveAnalysis;
import dev.ironsieve.core.edit.Edit;
import dev.ironsieve.core.edit.Touched;
import dev.ironsieve.core.model.AddressItem;
import dev.ironsieve.core.model.AddressObject;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Section;
import dev.ironsieve.core.rulebase.Rulebase;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.concurrent.TimeUnit;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Level;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Param;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;

/** From one edit to the new findings; the peer asks every rule anew. */
@State(Scope.Thread)
@BenchmarkMode({Mode.SampleTime})
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Warmup(iterations = 3, time = 2)
@Measurement(iterations = 5, time = 2)
@Fork(1)
public class EditBenchmark {
  private static final String ADDRESS = "ships";
  private static final int MENTIONING = 20; // rules
  private static final int HOSTS = 600;

  /** What is edited. */
  public enum Edited {
    RULE,
    /** An address that some rules mention. */
    ADDRESS,
    /** A rule that then names a host that no rule named before. */
    HOST
  }

  @Param({"1000"})
  private int rules;

  @Param({"EASY", "HARD"})
  private Shape shape;

  @Param private Edited edited;

  private RulebaseGenerator generator;
  private Random random;
  private LiveAnalysis live;
  private Rulebase base;
  private Edit edit;

  /** A generated rulebase, analysed once. */
  @Setup(Level.Trial)
  public void generate() {
    generator = new RulebaseGenerator(42, shape);
    random = new Random(42);
    base = new Edit.PutAddress(ships(), null).apply(generator.rulebase(rules));
    List<Rule> mentioning = base.rules().subList(rules / 2, rules / 2 + MENTIONING);
    base =
        new Edit.ReplaceRules(mentioning.stream().map(EditBenchmark::mentioning).toList())
            .apply(base);
    if (edited == Edited.HOST) {
      base = namingHosts(base);
    }
    live = new LiveAnalysis(base);
    live.standings(); // as if a view had shown them
  }

  private AddressObject ships() {
    String network = "10.%d.%d.0/24".formatted(random.nextInt(256), random.nextInt(256));
    return new AddressObject(ADDRESS, List.of(AddressItem.parse(network)), "");
  }

  private static Rule mentioning(Rule rule) {
    return rule.matching(
        rule.fromZones(),
        rule.fromAddresses(),
        rule.toZones(),
        Criterion.of(new AddressItem.Named(ADDRESS)),
        rule.services());
  }

  /** The rules with hosts in place of values of a pinned vocabulary of sites. */
  private Rulebase namingHosts(Rulebase pinned) {
    List<Section> sections =
        pinned.sections().stream()
            .map(
                section ->
                    new Section(
                        section.id(),
                        section.name(),
                        section.rules().stream().map(this::namingAHost).toList()))
            .toList();
    return new Rulebase(
        pinned.name(),
        pinned.zones(),
        pinned.addresses(),
        pinned.services(),
        pinned.pinned().stream().filter(v -> v.coordinate() != Coordinate.SITE).toList(),
        sections);
  }

  private Rule namingAHost(Rule rule) {
    Map<Coordinate, Criterion<String>> terms = new EnumMap<>(Coordinate.class);
    terms.putAll(rule.terms());
    if (terms.remove(Coordinate.SITE) != null) {
      int host = random.nextInt(HOSTS);
      terms.put(Coordinate.SITE, Criterion.of("*.h%d.d%d.example".formatted(host, host % 20)));
    }
    return rule.asking(terms);
  }

  /** Another rule gets other criteria each time, or the address another member. */
  @Setup(Level.Invocation)
  public void nextEdit() {
    if (edited == Edited.HOST) {
      Rule rule = base.rules().get(random.nextInt(base.rules().size()));
      Map<Coordinate, Criterion<String>> terms = new EnumMap<>(Coordinate.class);
      terms.putAll(rule.terms());
      terms.put(Coordinate.SITE, Criterion.of("new%d.example".formatted(random.nextInt(1 << 30))));
      edit = new Edit.ReplaceRules(List.of(rule.asking(terms)));
      return;
    }
    if (edited == Edited.ADDRESS) {
      edit = new Edit.PutAddress(ships(), ADDRESS);
      return;
    }
    List<Rule> all = base.rules();
    String id = all.get(random.nextInt(all.size())).id();
    edit = new Edit.ReplaceRules(List.of(generator.rule(id)));
  }

  /** What the bench does. */
  @Benchmark
  public LiveAnalysis.Changed live() {
    Set<String> touched = Touched.ruleIds(edit.touched(base));
    base = edit.apply(base);
    return live.update(base, touched);
  }

  /** The peer: the same edit, and everything anew. */
  @Benchmark
  public LiveAnalysis anew() {
    base = edit.apply(base);
    return new LiveAnalysis(base);
  }
}
