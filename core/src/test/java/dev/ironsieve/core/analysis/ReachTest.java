package dev.ironsieve.core.analysis;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import dev.ironsieve.core.model.AddressItem;
import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Section;
import dev.ironsieve.core.model.ServiceItem;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.ruleindex.RuleIndex;
import dev.ironsieve.core.space.Box;
import dev.ironsieve.core.space.Space;
import dev.ironsieve.core.twin.Rounds;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.Set;
import org.junit.jupiter.api.Test;

/** How much of a rule's match gets to it, held to counting every combination of classes. */
class ReachTest {
  private static final List<String> ADDRESSES =
      List.of("", "10.0.0.0/8", "10.1.0.0/16", "192.0.2.0/24", "2001:db8::/32", "0.0.0.0/0");
  private static final List<String> SERVICES = List.of("", "tcp/80", "tcp/1-100", "udp/53", "tcp");

  private static Rule rule(String id, String from, String service) {
    Rule all = Rule.matchingAll(id, "rule " + id, Verdict.ALLOW);
    return all.matching(
        all.fromZones(),
        from.isEmpty() ? Criterion.any() : Criterion.of(AddressItem.parse(from)),
        all.toZones(),
        all.toAddresses(),
        service.isEmpty() ? Criterion.any() : Criterion.of(ServiceItem.parse(service)));
  }

  private static LiveAnalysis analysis(List<Rule> rules) {
    return new LiveAnalysis(
        new Rulebase("b", List.of(), List.of(), List.of(), List.of(new Section("s", "S", rules))));
  }

  /** The share of the points of a rule's boxes that it decides. */
  private static double counted(RuleIndex index, int handle) {
    long all = 0;
    long own = 0;
    for (Box box : index.region(handle)) {
      long points = 1;
      for (int axis = 0; axis < box.axes(); axis++) {
        points *= index.space().count(axis, box.side(axis));
      }
      for (long number = 0; number < points; number++) {
        own += index.first(point(index.space(), box, number)) == handle ? 1 : 0;
      }
      all += points;
    }
    return (double) own / all;
  }

  private static int[] point(Space space, Box box, long number) {
    int[] point = new int[box.axes()];
    long left = number;
    for (int axis = 0; axis < point.length; axis++) {
      long classes = space.count(axis, box.side(axis));
      point[axis] = space.pick(axis, box.side(axis), left % classes);
      left /= classes;
    }
    return point;
  }

  @Test
  void aSampleIsNearToWhatIsCounted() {
    int between = 0; // shares that are neither nothing nor all
    for (int seed = 0; seed < Rounds.of(300); seed++) {
      Random random = new Random(seed);
      List<Rule> rules = new ArrayList<>();
      for (int i = 0; i < 8; i++) {
        rules.add(
            rule(
                "r" + seed + "-" + i,
                ADDRESSES.get(random.nextInt(ADDRESSES.size())),
                SERVICES.get(random.nextInt(SERVICES.size()))));
      }
      LiveAnalysis live = analysis(rules);
      for (Rule rule : rules) {
        Reach reach = live.reach(rule.id());
        double share = counted(live.index(), live.index().handle(rule.id()));
        if (reach.uncertainty() == 0) {
          assertThat(reach.share()).as("%d: %s", seed, rule).isEqualTo(share);
          continue;
        }
        between++;
        double deviation = Math.sqrt(share * (1 - share) / 128);
        assertThat(reach.share())
            .as("%d: %s", seed, rule)
            .isCloseTo(share, within(5 * deviation + 1e-9));
      }
    }
    assertThat(between).isGreaterThan(Rounds.least(300));
  }

  @Test
  void aBoxOfMoreClassesIsSampledMoreOften() {
    // Of IPv4 twenty classes, all of which are taken; of IPv6 one.
    List<Rule> rules = new ArrayList<>();
    for (int i = 0; i < 19; i++) {
      rules.add(rule("c" + i, "10.%d.0.0/16".formatted(2 * i), "tcp/80"));
    }
    rules.add(rule("v4", "0.0.0.0/0", ""));
    rules.add(rule("all", "", ""));
    LiveAnalysis live = analysis(rules);
    double share = counted(live.index(), live.index().handle("all"));
    assertThat(share).isLessThan(0.1);
    assertThat(live.reach("all").share()).isCloseTo(share, within(0.09));
    assertThat(live.reach("v4").share()).isGreaterThan(0.5);
  }

  @Test
  void theMoreRulesTheSmallerIsTheSample() {
    for (int[] rulesAndSamples : new int[][] {{3, 128}, {2000, 128}, {4000, 64}, {20_000, 16}}) {
      Reach reach = analysis(withOthers(rulesAndSamples[0])).reach("all");
      int samples = rulesAndSamples[1];
      int hits = (int) Math.round(reach.share() * samples);
      assertThat(reach).as("%s rules", rulesAndSamples[0]).isEqualTo(Reach.sampled(hits, samples));
      assertThat(hits).isBetween(1, samples - 1);
    }
  }

  /** Two rules of which the first takes some of the second, and others that are off. */
  private static List<Rule> withOthers(int all) {
    List<Rule> rules = new ArrayList<>();
    rules.add(rule("web", "", "tcp/80"));
    rules.add(rule("all", "", "tcp"));
    for (int i = 2; i < all; i++) {
      rules.add(rule("off" + i, "", "tcp/80").enabled(false));
    }
    return rules;
  }

  @Test
  void ofFewRulesAllAreToldWhoseSampleIsAnother() {
    for (int all : new int[] {3, 200, 201}) {
      List<Rule> rules = withOthers(all);
      LiveAnalysis live = analysis(rules);
      Reach before = live.reach("all");
      rules.set(2, rule("off2", "", "tcp/80-90").enabled(false));
      LiveAnalysis.Changed changed = live.update(analysis(rules).rulebase(), Set.of());
      assertThat(live.reach("all")).isNotEqualTo(before).isEqualTo(analysis(rules).reach("all"));
      assertThat(changed.reaches().contains("all")).as("%s rules", all).isEqualTo(all <= 200);
    }
  }

  @Test
  void whereRulesGrowManyASmallerSampleIsTaken() {
    List<Rule> rules = withOthers(2000);
    LiveAnalysis live = analysis(rules);
    Reach before = live.reach("all");
    rules.addAll(withOthers(2100).subList(2000, 2100)); // which tell nothing else apart
    live.update(analysis(rules).rulebase(), Set.of());
    assertThat(live.reach("all").uncertainty()).isGreaterThan(before.uncertainty());
    assertThat(live.reach("all")).isEqualTo(analysis(rules).reach("all"));
  }
}
