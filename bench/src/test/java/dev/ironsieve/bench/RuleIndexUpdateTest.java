package dev.ironsieve.bench;

import static org.assertj.core.api.Assertions.assertThat;

import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Section;
import dev.ironsieve.core.ruleindex.RuleIndex;
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
class RuleIndexUpdateTest {
  private static final int UPDATES = 240;
  private static final int POINTS = 40;

  @ParameterizedTest
  @EnumSource(
      value = Shape.class,
      names = {"EASY", "HARD"})
  void lookUpsAndNeighboursStayRight(Shape shape) {
    RulebaseGenerator generator = new RulebaseGenerator(11, shape);
    List<Rule> rules = new ArrayList<>(generator.rulebase(900).rules());
    RuleIndex index = new RuleIndex(generator.rulebase(1).withSections(sections(rules)));
    Random random = new Random(11);
    SplittableRandom points = new SplittableRandom(11);
    int anew = 0;
    for (int update = 0; update < UPDATES; update++) {
      ask(index, points);
      Set<String> moved = change(rules, random, generator, update);
      if (index.update(List.copyOf(rules), moved) == null) {
        index = new RuleIndex(generator.rulebase(1).withSections(sections(rules)));
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

  private static void ask(RuleIndex index, SplittableRandom random) {
    Space space = index.space();
    for (int i = 0; i < POINTS; i++) {
      int handle = index.handleAt(random.nextInt(index.size()));
      if (index.region(handle).isEmpty()) {
        continue;
      }
      Box box = index.region(handle).get(random.nextInt(index.region(handle).size()));
      int[] point = space.pick(box, random);
      int from = random.nextInt(3) == 0 ? random.nextInt(index.size()) : 0;
      if (random.nextInt(4) == 0) {
        point[Space.TERMS + random.nextInt(space.axes() - Space.TERMS)] = Space.UNKNOWN;
      }
      assertThat(index.firstFrom(from, point)).isEqualTo(firstFrom(index, from, point));
      assertThat(index.overlapping(List.of(box), from, index.size()))
          .isEqualTo(overlapping(index, box, from));
    }
  }

  private static int firstFrom(RuleIndex index, int from, int[] point) {
    for (int position = from; position < index.size(); position++) {
      int handle = index.handleAt(position);
      if (index.rule(handle).enabled()
          && index.region(handle).stream().anyMatch(box -> holds(index.space(), box, point))) {
        return handle;
      }
    }
    return RuleIndex.NONE;
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

  private static int[] overlapping(RuleIndex index, Box box, int from) {
    List<Integer> out = new ArrayList<>();
    for (int position = from; position < index.size(); position++) {
      int handle = index.handleAt(position);
      if (index.rule(handle).enabled()
          && index.region(handle).stream().anyMatch(other -> other.intersects(box))) {
        out.add(handle);
      }
    }
    return out.stream().mapToInt(Integer::intValue).toArray();
  }
}
