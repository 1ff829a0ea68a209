package dev.ironsieve.core.analysis;

import static org.assertj.core.api.Assertions.assertThat;

import dev.ironsieve.core.edit.Edit;
import dev.ironsieve.core.edit.Place;
import dev.ironsieve.core.edit.Touched;
import dev.ironsieve.core.model.AddressItem;
import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Section;
import dev.ironsieve.core.model.ServiceLiteral;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.sets.Address;
import dev.ironsieve.core.sets.AddressRange;
import dev.ironsieve.core.sets.Family;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import org.junit.jupiter.api.Test;

/** One edit about which so many rules are asked that several threads do it. */
class ManyAtOnceTest {
  private static final int RULES = 5 * Certificates.MANY;

  /** Allows one host the ports up to one above 99. */
  private static Rule host(int number) {
    Address host = new Address(Family.IPV4, 0, (10L << 24) + number);
    return Rule.matchingAll("h" + number, "Host " + number, Verdict.ALLOW)
        .matching(
            Criterion.any(),
            Criterion.of(new AddressItem.Literal(AddressRange.prefix(host, 32))),
            Criterion.any(),
            Criterion.any(),
            Criterion.of(ServiceLiteral.ports(6, 0, 100 + number)));
  }

  /** Drops the ports from {@code first} on, whatever the host. */
  private static Rule broad(int first) {
    return Rule.matchingAll("broad", "Broad", Verdict.DROP)
        .matching(
            Criterion.any(),
            Criterion.any(),
            Criterion.any(),
            Criterion.any(),
            Criterion.of(ServiceLiteral.ports(6, first, 60_000)));
  }

  private static Map<String, List<Finding.Kind>> kinds(LiveAnalysis live) {
    Map<String, List<Finding.Kind>> out = new TreeMap<>();
    for (Rule rule : live.rulebase().rules()) {
      out.put(rule.id(), live.findings(rule.id()).stream().map(Finding::kind).sorted().toList());
    }
    return out;
  }

  @Test
  void answersAreThoseOfAFreshAnalysis() {
    List<Rule> rules = new ArrayList<>();
    rules.add(broad(50));
    for (int i = 0; i < RULES; i++) {
      rules.add(host(i));
    }
    Rulebase base =
        new Rulebase(
            "many", List.of(), List.of(), List.of(), List.of(new Section("s", "S", rules)));
    LiveAnalysis live = new LiveAnalysis(base);
    assertThat(live.findings("h7")).extracting(Finding::kind).contains(Finding.Kind.CORRELATED);
    List<Edit> edits =
        List.of(
            new Edit.ReplaceRules(List.of(broad(80))),
            new Edit.ReplaceRules(List.of(broad(0))), // shadows all
            new Edit.DeleteRules(List.of("broad")),
            new Edit.InsertRules(List.of(broad(90)), new Place.Above("h0")),
            new Edit.InsertRules(
                List.of(Rule.matchingAll("lower", "Lower", Verdict.DROP)),
                new Place.Below("h" + (RULES - 1))));
    for (Edit edit : edits) {
      Set<String> moved = Touched.ruleIds(edit.touched(base));
      Map<String, List<Finding.Kind>> before = kinds(live);
      base = edit.apply(base);
      Set<String> told = live.update(base, moved).answers();
      Map<String, List<Finding.Kind>> now = kinds(live);
      assertThat(now).as("%s", edit).isEqualTo(kinds(new LiveAnalysis(base)));
      now.forEach(
          (id, kinds) -> {
            if (!kinds.equals(before.get(id))) {
              assertThat(told).contains(id);
            }
          });
      for (int i = 0; i < RULES; i++) {
        assertThat(live.standing("h" + i)).isInstanceOf(expected(edit));
      }
    }
    assertThat(live.findings("h7")).extracting(Finding::kind).contains(Finding.Kind.CORRELATED);
  }

  private static Class<? extends Standing> expected(Edit edit) {
    boolean shadowsAll =
        edit instanceof Edit.ReplaceRules replaced && replaced.rules().getFirst().equals(broad(0));
    return shadowsAll ? Standing.Covered.class : Standing.Decides.class;
  }
}
