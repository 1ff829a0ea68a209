package dev.ironsieve.core.matcher;

import dev.ironsieve.core.matcher.Trace.Part;
import dev.ironsieve.core.matcher.Trace.Passed;
import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Defaults;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Rulebase;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.model.Vocabulary;
import dev.ironsieve.core.order.Order;
import dev.ironsieve.core.space.Completions;
import dev.ironsieve.core.space.Space;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * The first enabled rule whose criteria hold decides. An incomplete connection stands for all of
 * its feasible completions; where one rule has to be named, that is the rule for nobody signed in,
 * an unknown device, no site, no file and an unidentified application.
 *
 * <p>A decision on a wholly known connection is one look into the index of the {@link Order}; a
 * decision on any other goes down the rules. A trace asks each distinct criterion at most once,
 * O(rules + criteria · log size).
 */
public final class Matcher {
  /** Steps of work for {@link #possible}; a step is one comparison of a box with another. */
  public static final long STEPS = 1_000_000;

  private final Order order;

  public Matcher(Rulebase rulebase) {
    this(new Order(rulebase));
  }

  /** For rules that are laid out already; has to be made again after the order was updated. */
  public Matcher(Order order) {
    this.order = order;
  }

  /**
   * Every rule that can decide an incomplete connection, with the criteria that it depends on.
   *
   * @param steps most comparisons of boxes that it may take
   */
  public PossibleDecisions possible(Connection connection, long steps) {
    Completions all = Completions.of(connection, order.space(), order.resolution());
    return PossibleDecisionSearch.of(order, all, steps);
  }

  /** The connection completed with the default values. */
  public Connection withDefaults(Connection connection) {
    Map<Coordinate, String> terms = new EnumMap<>(Coordinate.class);
    terms.putAll(connection.terms());
    for (Vocabulary vocabulary : order.resolution().vocabularies()) {
      Coordinate coordinate = vocabulary.coordinate();
      if (!terms.containsKey(coordinate)) {
        Defaults.of(coordinate)
            .filter(value -> order.resolution().hasValue(coordinate, value))
            .ifPresent(value -> terms.put(coordinate, value));
      }
    }
    return connection.saying(terms);
  }

  /** The rule that decides, or nothing if the default rule does. */
  public Optional<Rule> decide(Connection said) {
    int slot = slot(said, order.space().point(said));
    return slot == Order.NONE ? Optional.empty() : Optional.of(order.rule(slot));
  }

  /**
   * For each of many connections the position of the rule that decides, from 0, or -1 if the
   * default rule does.
   */
  public int[] positions(List<Connection> said) {
    int[][] points = order.space().points(said);
    int[] out = new int[points.length];
    for (int i = 0; i < out.length; i++) {
      int slot = slot(said.get(i), points[i]);
      out[i] = slot == Order.NONE ? -1 : order.position(slot);
    }
    return out;
  }

  /**
   * The answer for one of many connections.
   *
   * @param position of the rule that decides, from 0, or -1 for the default rule
   * @param possible what else may decide; null for a complete connection
   */
  public record Answer(int position, PossibleDecisions possible) {}

  /** The answers for many connections. */
  public List<Answer> answers(List<Connection> said) {
    int[][] points = order.space().points(said);
    List<Answer> out = new ArrayList<>(points.length);
    for (int i = 0; i < points.length; i++) {
      int slot = slot(said.get(i), points[i]);
      int position = slot == Order.NONE ? -1 : order.position(slot);
      out.add(new Answer(position, isWhole(points[i]) ? null : possible(said.get(i), STEPS)));
    }
    return out;
  }

  /** Whether all is known that some rule asks for. */
  private static boolean isWhole(int[] point) {
    if (point == null) {
      return false;
    }
    for (int label : point) {
      if (label == Space.UNKNOWN) {
        return false;
      }
    }
    return true;
  }

  /**
   * @param said of which not all may be known
   * @param saidPoint its point, or null
   */
  private int slot(Connection said, int[] saidPoint) {
    if (isWhole(saidPoint)) {
      return order.first(saidPoint);
    }
    Connection connection = withDefaults(said);
    int[] point = order.space().point(connection);
    if (point != null) {
      return order.first(point);
    }
    Asked asked = new Asked(order, connection);
    for (int position = 0; position < order.size(); position++) {
      int slot = order.slotAt(position);
      if (order.rule(slot).isInForce() && asked.failing(slot, true).isEmpty()) {
        return slot;
      }
    }
    return Order.NONE;
  }

  /**
   * What is done with a connection while more and more of it becomes known, up to the stage that
   * settles it; at least one, at most one for each {@link Stage}.
   */
  public List<Stage.Answer> stages(Connection connection) {
    Verdict decided = decide(connection).map(Rule::verdict).orElse(Verdict.DROP);
    return new Unfolding(order, connection, decided).stages();
  }

  /** The way of a connection down the rules. */
  public Trace trace(Connection said) {
    Connection connection = withDefaults(said);
    Asked asked = new Asked(order, connection);
    List<Passed> passed = new ArrayList<>();
    for (int position = 0; position < order.size(); position++) {
      int slot = order.slotAt(position);
      Rule rule = order.rule(slot);
      if (!rule.isInForce()) {
        passed.add(new Passed(rule, Set.of()));
        continue;
      }
      Set<Part> failing = asked.failing(slot, false);
      if (failing.isEmpty()) {
        return new Trace(List.copyOf(passed), rule);
      }
      passed.add(new Passed(rule, failing));
    }
    return new Trace(List.copyOf(passed), null);
  }
}
