package dev.ironsieve.core.matcher;

import dev.ironsieve.core.matcher.Trace.CriterionName;
import dev.ironsieve.core.matcher.Trace.Passed;
import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.DefaultRule;
import dev.ironsieve.core.model.Defaults;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.model.Vocabulary;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.ruleindex.RuleIndex;
import dev.ironsieve.core.space.Completions;
import dev.ironsieve.core.space.Space;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * Decides connections: the first enabled rule whose criteria hold decides. An incomplete connection
 * stands for all of its feasible completions; where one rule has to be named, that is the rule for
 * nobody signed in, an unknown device, no site, no file and an unidentified application.
 *
 * <p>A decision on a wholly known connection is one look into the index of the {@link RuleIndex}; a
 * decision on any other goes down the rules. A trace asks each distinct criterion at most once,
 * O(rules + criteria · log size).
 */
public final class Matcher {
  /** Steps of work for {@link #possible}; a step is one comparison of a box with another. */
  public static final long STEPS = 1_000_000;

  private final RuleIndex index;

  public Matcher(Rulebase rulebase) {
    this(new RuleIndex(rulebase));
  }

  /** For rules that are laid out already; has to be made again after the order was updated. */
  public Matcher(RuleIndex index) {
    this.index = index;
  }

  /**
   * Every rule that can decide an incomplete connection, with the criteria that it depends on.
   *
   * @param steps most comparisons of boxes that it may take
   */
  public PossibleDecisions possible(Connection connection, long steps) {
    Completions all = Completions.of(connection, index.space(), index.resolution());
    return PossibleDecisionSearch.of(index, all, steps);
  }

  /**
   * The connection with the names of the values that its hosts, devices and times have, such as
   * {@code *.quay.example} for {@code www.quay.example}. A term that no rule tells apart is left
   * out, and so is one that no value holds.
   *
   * @param concrete terms as a gateway sees them
   */
  public Connection named(Connection concrete) {
    Map<Coordinate, String> terms = new EnumMap<>(Coordinate.class);
    concrete
        .terms()
        .forEach(
            (coordinate, text) ->
                index
                    .resolution()
                    .finder(coordinate)
                    .flatMap(finder -> finder.value(text))
                    .ifPresent(value -> terms.put(coordinate, value)));
    return concrete.saying(terms);
  }

  /** The connection completed with the default values. */
  public Connection withDefaults(Connection connection) {
    Map<Coordinate, String> terms = new EnumMap<>(Coordinate.class);
    terms.putAll(connection.terms());
    for (Vocabulary vocabulary : index.resolution().vocabularies()) {
      Coordinate coordinate = vocabulary.coordinate();
      if (!terms.containsKey(coordinate)) {
        Defaults.of(coordinate)
            .filter(value -> index.resolution().hasValue(coordinate, value))
            .ifPresent(value -> terms.put(coordinate, value));
      }
    }
    return connection.saying(terms);
  }

  /** The rule that decides, or nothing if the default rule does. */
  public Optional<Rule> decide(Connection said) {
    int handle = handle(said, index.space().point(said));
    return handle == RuleIndex.NONE ? Optional.empty() : Optional.of(index.rule(handle));
  }

  /**
   * For each of many connections the position of the rule that decides, from 0, or -1 if the
   * default rule does.
   */
  public int[] positions(List<Connection> said) {
    int[][] points = index.space().points(said);
    int[] out = new int[points.length];
    for (int i = 0; i < out.length; i++) {
      int handle = handle(said.get(i), points[i]);
      out[i] = handle == RuleIndex.NONE ? -1 : index.position(handle);
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
    int[][] points = index.space().points(said);
    List<Answer> out = new ArrayList<>(points.length);
    for (int i = 0; i < points.length; i++) {
      int handle = handle(said.get(i), points[i]);
      int position = handle == RuleIndex.NONE ? -1 : index.position(handle);
      out.add(new Answer(position, isWhole(points[i]) ? null : possible(said.get(i), STEPS)));
    }
    return out;
  }

  /** Whether all is known that some rule asks for. */
  private static boolean isWhole(int[] point) {
    if (point == null) {
      return false;
    }
    for (int code : point) {
      if (code == Space.UNKNOWN) {
        return false;
      }
    }
    return true;
  }

  /**
   * @param said of which not all may be known
   * @param saidPoint its point, or null
   */
  private int handle(Connection said, int[] saidPoint) {
    if (isWhole(saidPoint)) {
      return index.first(saidPoint);
    }
    Connection connection = withDefaults(said);
    int[] point = index.space().point(connection);
    if (point != null) {
      return index.first(point);
    }
    CriterionEvaluator asked = new CriterionEvaluator(index, connection);
    for (int position = 0; position < index.size(); position++) {
      int handle = index.handleAt(position);
      if (index.rule(handle).isInForce() && asked.failing(handle, true).isEmpty()) {
        return handle;
      }
    }
    return RuleIndex.NONE;
  }

  /**
   * The verdicts on a connection while more of it becomes known, up to the stage that settles it;
   * at least one, at most one for each {@link Stage}.
   */
  public List<Stage.Answer> stages(Connection connection) {
    Verdict decided = DefaultRule.verdict(decide(connection).orElse(null));
    return new Unfolding(index, connection, decided).stages();
  }

  /**
   * Whether a connection may never be wholly known: it is encrypted, and some of what is given of
   * it shows only in opened connections. The last of any other's {@link #stages} is settled as
   * {@link #decide} says.
   */
  public boolean mayStayHidden(Connection connection) {
    return new Unfolding(index, connection, null).mayStayHidden();
  }

  /** The way of a connection down the rules. */
  public Trace trace(Connection said) {
    Connection connection = withDefaults(said);
    CriterionEvaluator asked = new CriterionEvaluator(index, connection);
    List<Passed> passed = new ArrayList<>();
    for (int position = 0; position < index.size(); position++) {
      int handle = index.handleAt(position);
      Rule rule = index.rule(handle);
      if (!rule.isInForce()) {
        passed.add(new Passed(rule, Set.of()));
        continue;
      }
      Set<CriterionName> failing = asked.failing(handle, false);
      if (failing.isEmpty()) {
        return new Trace(List.copyOf(passed), rule);
      }
      passed.add(new Passed(rule, failing));
    }
    return new Trace(List.copyOf(passed), null);
  }

  /**
   * The nearest changes of one rule that would give a connection the other effect: let through, or
   * refused.
   *
   * @param trace of the connection
   * @param most changes of rules above the one that decides
   */
  public List<VerdictChange> changes(Connection said, Trace trace, int most) {
    return VerdictChange.of(trace, new CriterionEvaluator(index, withDefaults(said)), index, most);
  }
}
