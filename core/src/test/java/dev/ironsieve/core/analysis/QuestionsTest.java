package dev.ironsieve.core.analysis;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.ironsieve.core.analysis.Questions.Obstacle;
import dev.ironsieve.core.model.AddressItem;
import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Section;
import dev.ironsieve.core.model.ServiceItem;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.ruleindex.RuleIndex;
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

  private static RuleIndex index(Rule... rules) {
    return new RuleIndex(
        new Rulebase(
            "test",
            List.of(),
            List.of(),
            List.of(),
            List.of(new Section("s", "S", List.of(rules)))));
  }

  private static Optional<int[]> decided(RuleIndex index, String id) {
    Questions questions = new Questions(index, LiveAnalysis.STEPS);
    int handle = index.handle(id);
    LeastCoveredPoint leastCovered = LeastCoveredPoint.upTo(index, 1)[0];
    return questions.guess(index.region(handle), leastCovered, handle, questions.before(handle));
  }

  @Test
  void whatIsLeftInOnePlaceIsFoundByWalkingOutOfEachRuleInTurn() {
    RuleIndex index =
        index(
            rule("not-from", "except 192.0.2.7", "", ""),
            rule("not-to", "", "except 198.51.100.9", ""),
            rule("not-on", "", "", "except tcp/25"),
            rule("target", "", "", ""));
    int[] point = decided(index, "target").orElseThrow();
    assertThat(index.first(point)).isEqualTo(index.handle("target"));
    Connection found = index.space().connection(point);
    assertThat(found.from().address()).hasToString("192.0.2.7");
    assertThat(found.to().address()).hasToString("198.51.100.9");
    assertThat(found.detail()).isEqualTo(25);
  }

  @Test
  void nothingIsFoundWhereARuleHoldsAll() {
    RuleIndex index = index(rule("whole", "", "", "tcp/1-99"), rule("target", "", "", "tcp/7-9"));
    assertThat(decided(index, "target")).isEmpty();
    Questions questions = new Questions(index, LiveAnalysis.STEPS);
    int[] asked = new int[1];
    Obstacle before =
        point -> {
          asked[0]++;
          return index.first(point);
        };
    int target = index.handle("target");
    LeastCoveredPoint leastCovered = LeastCoveredPoint.upTo(index, 1)[0];
    int boxes = index.region(target).size();
    assertThat(questions.guessFromCorners(index.region(target), leastCovered, 1, before)).isEmpty();
    assertThat(asked[0]).as("a rule that holds all is not walked out of").isEqualTo(boxes);
    asked[0] = 0;
    Obstacle hopeless =
        point -> {
          asked[0]++;
          return Obstacle.HOPELESS;
        };
    assertThat(questions.guess(index.region(target), leastCovered, 1, hopeless)).isEmpty();
    assertThat(asked[0]).as("a corner and three points of each box").isEqualTo(4 * boxes);
    asked[0] = 0;
    assertThat(questions.guessFromCorners(index.region(target), leastCovered, 1, hopeless))
        .isEmpty();
    assertThat(asked[0]).as("the corner of each box").isEqualTo(boxes);
  }

  @Test
  void aWalkEndsAfterSomeSteps() {
    List<Rule> rules = new ArrayList<>();
    for (int port = 0; port < 40; port++) {
      rules.add(rule("on-" + port, "", "", "tcp/" + port));
    }
    rules.add(rule("target", "", "", "tcp/0-39"));
    RuleIndex index = index(rules.toArray(Rule[]::new));
    Questions questions = new Questions(index, LiveAnalysis.STEPS);
    int target = index.handle("target");
    int[] asked = new int[1];
    Obstacle counted =
        point -> {
          asked[0]++;
          return index.first(point);
        };
    List<Box> one = List.of(index.region(target).getFirst());
    LeastCoveredPoint leastCovered = LeastCoveredPoint.upTo(index, 1)[0];
    assertThat(questions.guessFromCorners(one, leastCovered, 1, counted)).isEmpty();
    assertThat(asked[0]).as("the corner, and one step from it").isEqualTo(1 + 1);
    asked[0] = 0;
    assertThat(questions.guess(one, leastCovered, 1, counted)).isEmpty();
    assertThat(asked[0]).as("four steps, from the corner and three points").isEqualTo(4 * (1 + 4));
  }

  @Test
  void regionsAreHeldByOneBoxOrSeveral() {
    RuleIndex index =
        index(
            rule("low", "", "", "tcp/0-9"),
            rule("high", "", "", "tcp/10-20"),
            rule("some", "", "", "tcp/5-15"));
    List<Box> low = index.region(index.handle("low"));
    List<Box> some = index.region(index.handle("some"));
    List<Box> both = new ArrayList<>(low);
    assertThat(Regions.holdsAll(both, some)).isFalse();
    both.addAll(index.region(index.handle("high")));
    assertThat(Regions.holdsAll(both, some)).isTrue();
    assertThat(Regions.holdsAll(some, low)).isFalse();
    assertThat(Regions.holdsAll(low, low)).isTrue();
    assertThat(Regions.holdsAll(low, List.of())).isTrue();
    assertThat(Regions.holdsAll(List.of(), low)).isFalse();
  }

  @Test
  void pointsAreMovedToWhatAReaderKnowsAsLongAsTheyProve() {
    RuleIndex index =
        index(
            rule("target", "", "", ""),
            rule("odd", "", "", "udp/40000"),
            rule("nowhere", "0.0.0.0/8", "", ""));
    Space space = index.space();
    Questions questions = new Questions(index, LiveAnalysis.STEPS);
    int[] odd = index.region(index.handle("odd")).getFirst().lowest();
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
    int handle = index.handle("odd");
    List<int[]> asked = new ArrayList<>();
    int[] held = questions.familiar(odd, point -> asked.add(point), handle, RuleIndex.NONE);
    assertThat(held).isEqualTo(kept);
    assertThat(asked).hasSize(1).allMatch(point -> index.holds(handle, point));
    assertThat(questions.familiar(held, point -> false, handle)).isEqualTo(held);
  }

  @Test
  void aPointOfARuleIsInOneOfItsBoxes() {
    RuleIndex index = index(rule("target", "", "", "tcp/5"), rule("other", "", "", "tcp/6"));
    int target = index.handle("target");
    int[] elsewhere = index.region(index.handle("other")).getFirst().lowest();
    Questions questions = new Questions(index, LiveAnalysis.STEPS);
    Obstacle wrong = point -> index.handle("other"); // which does not hold the point
    LeastCoveredPoint leastCovered = LeastCoveredPoint.upTo(index, 1)[0];
    assertThat(index.holds(target, elsewhere)).isFalse();
    assertThatThrownBy(() -> questions.guess(index.region(target), leastCovered, 1, wrong))
        .isInstanceOf(IllegalArgumentException.class);
  }
}
