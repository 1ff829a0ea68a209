package dev.ironsieve.core.matcher;

import dev.ironsieve.core.matcher.Trace.Part;
import dev.ironsieve.core.matcher.Trace.Passed;
import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Rulebase;
import dev.ironsieve.core.order.Order;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/**
 * The first enabled rule whose criteria hold decides. What is unknown of a connection is no member
 * of anything narrower than everything.
 *
 * <p>A decision on a wholly known connection is one look into the index of the {@link Order}; a
 * decision on any other goes down the rules. A trace asks each distinct criterion at most once,
 * O(rules + criteria · log size).
 */
public final class Matcher {
  private final Order order;

  public Matcher(Rulebase rulebase) {
    this(new Order(rulebase));
  }

  /** For rules that are laid out already; has to be made again after the order was updated. */
  public Matcher(Order order) {
    this.order = order;
  }

  /** The rule that decides, or nothing if the closing rule does. */
  public Optional<Rule> decide(Connection connection) {
    int slot = slot(connection, order.space().point(connection));
    return slot == Order.NONE ? Optional.empty() : Optional.of(order.rule(slot));
  }

  /**
   * For each of many connections the position of the rule that decides, from 0, or -1 if the
   * closing rule does.
   */
  public int[] positions(List<Connection> connections) {
    int[][] points = order.space().points(connections);
    int[] out = new int[points.length];
    for (int i = 0; i < out.length; i++) {
      int slot = slot(connections.get(i), points[i]);
      out[i] = slot == Order.NONE ? -1 : order.position(slot);
    }
    return out;
  }

  /**
   * @param point of the connection, or null if it is not wholly known
   */
  private int slot(Connection connection, int[] point) {
    if (point != null) {
      return order.first(point);
    }
    Asked asked = new Asked(order, connection);
    for (int position = 0; position < order.size(); position++) {
      int slot = order.slotAt(position);
      if (order.rule(slot).enabled() && asked.failing(slot, true).isEmpty()) {
        return slot;
      }
    }
    return Order.NONE;
  }

  /**
   * What is done with a connection while more and more of it becomes known, up to the stage that
   * settles it; at least one, at most one for each {@link Stage}. O(stages · rules).
   */
  public List<Stage.Answer> stages(Connection connection) {
    List<Stage.Answer> out = new ArrayList<>();
    for (Stage stage : Stage.values()) {
      Stage.Answer answer = answer(stage, connection);
      out.add(answer);
      if (answer.settled()) {
        break;
      }
    }
    return List.copyOf(out);
  }

  private Stage.Answer answer(Stage stage, Connection connection) {
    Asked asked = new Asked(order, connection, stage);
    List<Rule> open = new ArrayList<>();
    for (int position = 0; position < order.size(); position++) {
      int slot = order.slotAt(position);
      Rule rule = order.rule(slot);
      if (rule.enabled() && asked.failing(slot, true).isEmpty()) {
        if (!asked.isOpen(slot)) {
          return new Stage.Answer(stage, rule, open);
        }
        open.add(rule);
      }
    }
    return new Stage.Answer(stage, null, open);
  }

  /** The way of a connection down the rules. */
  public Trace trace(Connection connection) {
    Asked asked = new Asked(order, connection);
    List<Passed> passed = new ArrayList<>();
    for (int position = 0; position < order.size(); position++) {
      int slot = order.slotAt(position);
      Rule rule = order.rule(slot);
      if (!rule.enabled()) {
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
