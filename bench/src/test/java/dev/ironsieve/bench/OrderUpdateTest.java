package dev.ironsieve.bench;

import static org.assertj.core.api.Assertions.assertThat;

import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Section;
import dev.ironsieve.core.order.Order;
import dev.ironsieve.core.space.Box;
import dev.ironsieve.core.space.Space;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.SplittableRandom;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

/**
 * The indexes of an order, while some hundred rules are replaced, moved, deleted and inserted,
 * against looking at every rule: enough rules that cells have several words, and enough updates
 * that boxes come late to them and leave them.
 */
class OrderUpdateTest {
  private static final int UPDATES = 240;
  private static final int POINTS = 40;

  @ParameterizedTest
  @EnumSource(
      value = Shape.class,
      names = {"EASY", "HARD"})
  void lookUpsAndNeighboursStayRight(Shape shape) {
    RulebaseGenerator generator = new RulebaseGenerator(11, shape);
    List<Rule> rules = new ArrayList<>(generator.rulebase(900).rules());
    Order order = new Order(generator.rulebase(1).withSections(sections(rules)));
    Random random = new Random(11);
    SplittableRandom points = new SplittableRandom(11);
    int anew = 0;
    for (int update = 0; update < UPDATES; update++) {
      ask(order, points);
      Set<String> moved = change(rules, random, generator, update);
      if (order.update(List.copyOf(rules), moved) == null) {
        order = new Order(generator.rulebase(1).withSections(sections(rules)));
        anew++;
      }
    }
    assertThat(anew).as("orders made anew").isLessThan(UPDATES / 20);
  }

  private static List<Section> sections(List<Rule> rules) {
    return List.of(new Section("s", "All", rules));
  }

  /** Changes some rules; ids of those whose place may be another. */
  private static Set<String> change(
      List<Rule> rules, Random random, RulebaseGenerator generator, int update) {
    Set<String> moved = new HashSet<>();
    for (int i = 0; i <= random.nextInt(3); i++) {
      int at = random.nextInt(rules.size());
      switch (random.nextInt(5)) {
        case 0 -> rules.remove(at);
        case 1 -> rules.add(at, generator.rule("n" + update + "-" + i));
        case 2 -> {
          Rule rule = rules.remove(at);
          rules.add(random.nextInt(rules.size()), rule);
          moved.add(rule.id());
        }
        case 3 -> rules.set(at, rules.get(at).enabled(!rules.get(at).enabled()));
        default -> rules.set(at, generator.rule(rules.get(at).id()));
      }
    }
    return moved;
  }

  private static void ask(Order order, SplittableRandom random) {
    Space space = order.space();
    for (int i = 0; i < POINTS; i++) {
      int slot = order.slotAt(random.nextInt(order.size()));
      if (order.region(slot).isEmpty()) {
        continue;
      }
      Box box = order.region(slot).get(random.nextInt(order.region(slot).size()));
      int[] point = space.pick(box, random);
      int from = random.nextInt(3) == 0 ? random.nextInt(order.size()) : 0;
      if (random.nextInt(4) == 0) {
        point[Space.TERMS + random.nextInt(space.axes() - Space.TERMS)] = Space.UNKNOWN;
      }
      assertThat(order.firstFrom(from, point)).isEqualTo(firstFrom(order, from, point));
      assertThat(order.meeting(List.of(box), from, order.size()))
          .isEqualTo(meeting(order, box, from));
    }
  }

  private static int firstFrom(Order order, int from, int[] point) {
    for (int position = from; position < order.size(); position++) {
      int slot = order.slotAt(position);
      if (order.rule(slot).enabled()
          && order.region(slot).stream().anyMatch(box -> holds(order.space(), box, point))) {
        return slot;
      }
    }
    return Order.NONE;
  }

  private static boolean holds(Space space, Box box, int[] point) {
    for (int axis = 0; axis < point.length; axis++) {
      boolean any = point[axis] == Space.UNKNOWN && box.side(axis) == space.all(axis);
      if (!any && !box.side(axis).contains(point[axis])) {
        return false;
      }
    }
    return true;
  }

  private static int[] meeting(Order order, Box box, int from) {
    List<Integer> out = new ArrayList<>();
    for (int position = from; position < order.size(); position++) {
      int slot = order.slotAt(position);
      if (order.rule(slot).enabled()
          && order.region(slot).stream().anyMatch(other -> other.intersects(box))) {
        out.add(slot);
      }
    }
    return out.stream().mapToInt(Integer::intValue).toArray();
  }
}
