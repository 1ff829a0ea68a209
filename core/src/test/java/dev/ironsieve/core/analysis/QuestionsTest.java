package dev.ironsieve.core.analysis;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.ironsieve.core.analysis.Questions.Obstacle;
import dev.ironsieve.core.model.AddressItem;
import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Rulebase;
import dev.ironsieve.core.model.Section;
import dev.ironsieve.core.model.ServiceItem;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.order.Order;
import dev.ironsieve.core.space.Box;
import dev.ironsieve.core.space.Space;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;

/** How a point without an obstacle is found, where it takes more than one try. */
class QuestionsTest {
  private static Rule rule(String id, String from, String to, String service) {
    return Rule.matchingAll(id, id, Verdict.ALLOW)
        .matching(
            Criterion.any(), addresses(from), Criterion.any(), addresses(to), services(service));
  }

  /** {@code except X} for all but X, nothing for any. */
  private static Criterion<AddressItem> addresses(String said) {
    List<AddressItem> item = items(said).stream().map(AddressItem::parse).toList();
    return said.startsWith("except")
        ? new Criterion<>(List.of(), item)
        : new Criterion<>(item, List.of());
  }

  private static Criterion<ServiceItem> services(String said) {
    List<ServiceItem> item = items(said).stream().map(ServiceItem::parse).toList();
    return said.startsWith("except")
        ? new Criterion<>(List.of(), item)
        : new Criterion<>(item, List.of());
  }

  private static List<String> items(String said) {
    return said.isEmpty() ? List.of() : List.of(said.replace("except ", ""));
  }

  private static Order order(Rule... rules) {
    return new Order(
        new Rulebase(
            "test",
            List.of(),
            List.of(),
            List.of(),
            List.of(new Section("s", "S", List.of(rules)))));
  }

  private static Optional<int[]> decided(Order order, String id) {
    Questions questions = new Questions(order, LiveAnalysis.STEPS);
    int slot = order.slot(id);
    Corners corners = Corners.upTo(order, 1)[0];
    return questions.guess(order.region(slot), corners, slot, questions.before(slot));
  }

  @Test
  void whatIsLeftInOnePlaceIsFoundByWalkingOutOfEachRuleInTurn() {
    Order order =
        order(
            rule("not-from", "except 192.0.2.7", "", ""),
            rule("not-to", "", "except 198.51.100.9", ""),
            rule("not-on", "", "", "except tcp/25"),
            rule("target", "", "", ""));
    int[] point = decided(order, "target").orElseThrow();
    assertThat(order.first(point)).isEqualTo(order.slot("target"));
    Connection found = order.space().connection(point);
    assertThat(found.from().address()).hasToString("192.0.2.7");
    assertThat(found.to().address()).hasToString("198.51.100.9");
    assertThat(found.detail()).isEqualTo(25);
  }

  @Test
  void nothingIsFoundWhereARuleHoldsAll() {
    Order order = order(rule("whole", "", "", "tcp/1-99"), rule("target", "", "", "tcp/7-9"));
    assertThat(decided(order, "target")).isEmpty();
    Questions questions = new Questions(order, LiveAnalysis.STEPS);
    int[] asked = new int[1];
    Obstacle before =
        point -> {
          asked[0]++;
          return order.first(point);
        };
    int target = order.slot("target");
    Corners corners = Corners.upTo(order, 1)[0];
    int boxes = order.region(target).size();
    assertThat(questions.guessFromCorners(order.region(target), corners, 1, before)).isEmpty();
    assertThat(asked[0]).as("a rule that holds all is not walked out of").isEqualTo(boxes);
    asked[0] = 0;
    Obstacle hopeless =
        point -> {
          asked[0]++;
          return Obstacle.HOPELESS;
        };
    assertThat(questions.guess(order.region(target), corners, 1, hopeless)).isEmpty();
    assertThat(asked[0]).as("a corner and three points of each box").isEqualTo(4 * boxes);
    asked[0] = 0;
    assertThat(questions.guessFromCorners(order.region(target), corners, 1, hopeless)).isEmpty();
    assertThat(asked[0]).as("the corner of each box").isEqualTo(boxes);
  }

  @Test
  void aWalkEndsAfterSomeSteps() {
    List<Rule> rules = new ArrayList<>();
    for (int port = 0; port < 40; port++) {
      rules.add(rule("on-" + port, "", "", "tcp/" + port));
    }
    rules.add(rule("target", "", "", "tcp/0-39"));
    Order order = order(rules.toArray(Rule[]::new));
    Questions questions = new Questions(order, LiveAnalysis.STEPS);
    int target = order.slot("target");
    int[] asked = new int[1];
    Obstacle counted =
        point -> {
          asked[0]++;
          return order.first(point);
        };
    List<Box> one = List.of(order.region(target).getFirst());
    Corners corners = Corners.upTo(order, 1)[0];
    assertThat(questions.guessFromCorners(one, corners, 1, counted)).isEmpty();
    assertThat(asked[0]).as("the corner, and one step from it").isEqualTo(1 + 1);
    asked[0] = 0;
    assertThat(questions.guess(one, corners, 1, counted)).isEmpty();
    assertThat(asked[0]).as("four steps, from the corner and three points").isEqualTo(4 * (1 + 4));
  }

  @Test
  void regionsAreHeldByOneBoxOrSeveral() {
    Order order =
        order(
            rule("low", "", "", "tcp/0-9"),
            rule("high", "", "", "tcp/10-20"),
            rule("some", "", "", "tcp/5-15"));
    List<Box> low = order.region(order.slot("low"));
    List<Box> some = order.region(order.slot("some"));
    List<Box> both = new ArrayList<>(low);
    assertThat(Regions.holdsAll(both, some)).isFalse();
    both.addAll(order.region(order.slot("high")));
    assertThat(Regions.holdsAll(both, some)).isTrue();
    assertThat(Regions.holdsAll(some, low)).isFalse();
    assertThat(Regions.holdsAll(low, low)).isTrue();
    assertThat(Regions.holdsAll(low, List.of())).isTrue();
    assertThat(Regions.holdsAll(List.of(), low)).isFalse();
  }

  @Test
  void pointsAreMovedToWhatAReaderKnowsAsLongAsTheyProve() {
    Order order =
        order(
            rule("target", "", "", ""),
            rule("odd", "", "", "udp/40000"),
            rule("nowhere", "0.0.0.0/8", "", ""));
    Space space = order.space();
    Questions questions = new Questions(order, LiveAnalysis.STEPS);
    int[] odd = order.region(order.slot("odd")).getFirst().lowest();
    int[] moved = questions.familiar(odd, point -> true);
    for (int axis = 0; axis < space.axes(); axis++) {
      int[] known = space.familiar(axis, odd[axis]);
      assertThat(moved[axis]).isEqualTo(known.length == 0 ? odd[axis] : known[0]);
    }
    assertThat(moved).isNotEqualTo(odd);
    assertThat(questions.familiar(odd, point -> false)).isEqualTo(odd);
    int service = odd[Space.SERVICE];
    int[] kept = questions.familiar(odd, point -> point[Space.SERVICE] == service);
    assertThat(kept[Space.SERVICE]).isEqualTo(service);
    assertThat(kept[Space.FROM]).isEqualTo(moved[Space.FROM]);
    // Where a rule shall hold it still, nothing else is asked about.
    int slot = order.slot("odd");
    List<int[]> asked = new ArrayList<>();
    int[] held = questions.familiar(odd, point -> asked.add(point), slot, Order.NONE);
    assertThat(held).isEqualTo(kept);
    assertThat(asked).hasSize(1).allMatch(point -> order.holds(slot, point));
    assertThat(questions.familiar(held, point -> false, slot)).isEqualTo(held);
  }

  @Test
  void aPointOfARuleIsInOneOfItsBoxes() {
    Order order = order(rule("target", "", "", "tcp/5"), rule("other", "", "", "tcp/6"));
    int target = order.slot("target");
    int[] elsewhere = order.region(order.slot("other")).getFirst().lowest();
    Questions questions = new Questions(order, LiveAnalysis.STEPS);
    Obstacle wrong = point -> order.slot("other"); // which does not hold the point
    Corners corners = Corners.upTo(order, 1)[0];
    assertThat(order.holds(target, elsewhere)).isFalse();
    assertThatThrownBy(() -> questions.guess(order.region(target), corners, 1, wrong))
        .isInstanceOf(IllegalArgumentException.class);
  }
}
