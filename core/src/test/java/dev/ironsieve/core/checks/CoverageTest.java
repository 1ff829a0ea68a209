package dev.ironsieve.core.checks;

import static org.assertj.core.api.Assertions.assertThat;

import dev.ironsieve.core.model.AddressItem;
import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Section;
import dev.ironsieve.core.model.ServiceItem;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.reach.ReachTable;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.ruleindex.RuleIndex;
import dev.ironsieve.core.space.Box;
import dev.ironsieve.core.text.ConnectionLine;
import dev.ironsieve.core.text.ReachLine;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import org.junit.jupiter.api.Test;

/** By example: which mistakes a few checks notice, and which points notice all of them. */
class CoverageTest {
  private static Rule rule(String id, Verdict verdict, String to, String service) {
    Rule any = Rule.matchingAll(id, id, verdict);
    return any.matching(
        any.fromZones(),
        any.fromAddresses(),
        any.toZones(),
        Criterion.of(AddressItem.parse(to)),
        Criterion.of(ServiceItem.parse(service)));
  }

  private static final Rulebase BASE =
      new Rulebase(
          "b",
          List.of(),
          List.of(),
          List.of(),
          List.of(
              new Section(
                  "s",
                  "S",
                  List.of(
                      rule("deny", Verdict.REJECT, "10.0.0.9", "tcp/443"),
                      rule("web", Verdict.ALLOW, "10.0.0.0/28", "tcp/443")))));

  private static Check check(String line, Verdict expected) {
    return new Check(ConnectionLine.parse("from 192.0.2.1 " + line, BASE), expected);
  }

  @Test
  void noCheckNoticesNothing() {
    Coverage none = Coverage.of(BASE, List.of());
    assertThat(none.noticed()).isEmpty();
    assertThat(none.missed()).isNotEmpty();
    assertThat(none.share()).isZero();
    assertThat(none.undecided()).isEmpty();
    for (Coverage.Missed missed : none.missed()) {
      assertThat(missed.witness().to().address()).isNotNull();
    }
  }

  @Test
  void oneCheckNoticesWhatItShows() {
    Coverage one =
        Coverage.of(BASE, List.of(check("to 10.0.0.1 tcp/443 from port 50000", Verdict.ALLOW)));
    assertThat(one.noticed()).isNotEmpty();
    assertThat(one.missed()).isNotEmpty();
    int all = one.noticed().size() + one.missed().size();
    assertThat(one.share()).isEqualTo((double) one.noticed().size() / all);
    assertThat(one.failing()).isEmpty();
    assertThat(one.vague()).isEmpty();
    Coverage more =
        Coverage.of(
            BASE,
            List.of(
                check("to 10.0.0.1 tcp/443 from port 50000", Verdict.ALLOW),
                check("to 10.0.0.9 tcp/443 from port 50000", Verdict.REJECT)));
    assertThat(more.noticed()).containsAll(one.noticed());
    assertThat(more.share()).isGreaterThan(one.share());
  }

  @Test
  void aCheckThatFailsOrIsVagueNoticesNothing() {
    Check failing = check("to 10.0.0.1 tcp/443 from port 50000", Verdict.DROP);
    Check vague = new Check(ConnectionLine.parse("tcp/443", BASE), Verdict.ALLOW);
    Coverage coverage = Coverage.of(BASE, List.of(failing, vague));
    assertThat(coverage.failing()).containsExactly(failing);
    assertThat(coverage.vague()).containsExactly(vague);
    assertThat(coverage.noticed()).isEmpty();
  }

  @Test
  void thePointsNoticeEverythingAndNoneCanBeLeftOut() {
    TestPoints points = TestPoints.of(BASE);
    assertThat(points.undecided()).isEmpty();
    assertThat(points.atLeast()).isEqualTo(2); // two rules decide something
    assertThat(points.checks()).hasSizeGreaterThanOrEqualTo(points.atLeast());
    Coverage all = Coverage.of(BASE, points.checks());
    assertThat(all.missed()).isEmpty();
    assertThat(all.share()).isEqualTo(1);
    assertThat(all.harmless()).isEqualTo(points.harmless());
    for (Check left : points.checks()) {
      List<Check> others = new ArrayList<>(points.checks());
      others.remove(left);
      assertThat(Coverage.of(BASE, others).missed()).as("without %s", left).isNotEmpty();
    }
  }

  @Test
  void whatNoConnectionShowsIsHarmless() {
    Rule web = rule("web", Verdict.ALLOW, "10.0.0.0/28", "tcp/443");
    Rule same = rule("same", Verdict.ALLOW, "10.0.0.1", "tcp/443");
    Rulebase covered =
        new Rulebase(
            "b",
            List.of(),
            List.of(),
            List.of(),
            List.of(new Section("s", "S", List.of(web, same))));
    Coverage coverage = Coverage.of(covered, List.of());
    assertThat(coverage.harmless()).isNotEmpty();
    assertThat(coverage.harmless()).allMatch(mutant -> mutant.toString().contains("same"));
    assertThat(Coverage.of(covered, List.of()).share()).isZero();
    assertThat(TestPoints.of(covered).atLeast()).isEqualTo(1);
  }

  @Test
  void aSetOfConnectionsNoticesWhatChangesOneOfThem() {
    RuleIndex index = new RuleIndex(BASE);
    Rule question = ReachLine.parse("to 10.0.0.9 service tcp/443", BASE);
    List<List<Box>> all = List.of(ReachTable.regionOf(index, question));
    Coverage coverage = Coverage.of(index, List.of(), all, TestPoints.STEPS, null);
    assertThat(coverage.noticed())
        .contains(new Mutant.Disabled("deny"), new Mutant.Swapped("deny", "web"))
        .doesNotContain(new Mutant.Disabled("web"), new Mutant.OtherVerdict("web"));
    Rule wide = ReachLine.parse("service tcp/443", BASE);
    Coverage more =
        Coverage.of(
            index,
            List.of(),
            List.of(ReachTable.regionOf(index, wide)),
            TestPoints.STEPS,
            Set.of("web"));
    assertThat(more.noticed())
        .contains(new Mutant.Disabled("web"), new Mutant.OtherVerdict("web"))
        .allMatch(mutant -> mutant.rule().equals("web"));
  }
}
