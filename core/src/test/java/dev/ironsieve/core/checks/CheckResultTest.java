package dev.ironsieve.core.checks;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.ironsieve.core.difference.Aspect;
import dev.ironsieve.core.difference.Differences;
import dev.ironsieve.core.edit.Edit;
import dev.ironsieve.core.edit.MissingTarget;
import dev.ironsieve.core.edit.Touched;
import dev.ironsieve.core.model.AddressObject;
import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.InvalidModel;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.SavedCheck;
import dev.ironsieve.core.model.Section;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.model.Vocabulary;
import dev.ironsieve.core.model.Zone;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.ruleindex.RuleIndex;
import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.text.ConnectionLine;
import dev.ironsieve.core.text.ReachLine;
import dev.ironsieve.core.twin.Rounds;
import dev.ironsieve.core.twin.SlowRules;
import dev.ironsieve.core.twin.SmallWorld;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.Test;

/** Saved checks, against plain first match. */
class CheckResultTest {
  private static SavedCheck check(String name, String line, Verdict expected) {
    return new SavedCheck(name, line, expected, null);
  }

  @Test
  void everyCheckComesOutAsPlainFirstMatchSays() {
    List<Connection> all = SmallWorld.connectionsWithTerms();
    int flipped = 0;
    for (int seed = 0; seed < Rounds.of(120); seed++) {
      Random random = new Random(seed);
      Rulebase base = new SmallWorld(seed, true).rulebase(8);
      List<Connection> tried = new ArrayList<>();
      for (int i = 0; i < 20; i++) {
        Connection connection = all.get(random.nextInt(all.size()));
        tried.add(connection);
        String line = ConnectionLine.format(connection);
        base = new Edit.PutCheck(check("c" + i, line, Verdict.ALLOW), null).apply(base);
      }
      Edit delete =
          new Edit.DeleteRules(List.of(base.rules().get(seed % base.rules().size()).id()));
      Rulebase after = delete.apply(base);
      assertThat(after.checks()).isEqualTo(base.checks());
      List<String> flips = new ArrayList<>();
      SlowRules was = new SlowRules(base);
      SlowRules is = new SlowRules(after);
      List<CheckResult> results = results(base);
      for (int i = 0; i < tried.size(); i++) {
        Rule decides = was.decide(tried.get(i)).orElse(null);
        assertThat(results.get(i).rule()).isEqualTo(decides == null ? null : decides.id());
        assertThat(results.get(i).verdict()).isEqualTo(verdict(decides));
        assertThat(results.get(i).holds()).isEqualTo(verdict(decides) == Verdict.ALLOW);
        boolean now = verdict(is.decide(tried.get(i)).orElse(null)) == Verdict.ALLOW;
        if (now != results.get(i).holds()) {
          flips.add("c" + i);
        }
      }
      assertThat(CheckResult.flips(base, after, Differences.between(base, after, Aspect.VERDICT)))
          .extracting(flip -> flip.before().check().name())
          .containsExactlyElementsOf(flips);
      flipped += flips.size();
    }
    assertThat(flipped).isGreaterThan(Rounds.least(20));
  }

  private static List<CheckResult> results(Rulebase base) {
    return CheckResult.of(base, new RuleIndex(base));
  }

  private static Verdict verdict(Rule rule) {
    return rule == null ? Verdict.DROP : rule.verdict();
  }

  private static Rulebase small() {
    Rulebase base = new SmallWorld(3).rulebase(4);
    return new Edit.PutCheck(
            check("in", "from 10.0.0.1 in north to 10.0.0.2 in south tcp/1", Verdict.DROP), null)
        .apply(base);
  }

  @Test
  void aRenamedZoneIsFollowed() {
    Rulebase base = small();
    Zone north = base.zones().getFirst();
    Edit rename = new Edit.PutZone(new Zone("upper", north.networks(), north.note()), north.name());
    Rulebase after = rename.apply(base);
    assertThat(after.checks().getFirst().connection())
        .isEqualTo("from 10.0.0.1 in upper to 10.0.0.2 in south tcp/1");
    assertThat(results(after).getFirst().rule()).isEqualTo(results(base).getFirst().rule());
    assertThat(rename.inverse(base).orElseThrow().apply(after)).isEqualTo(base);
  }

  private static List<CheckResult> guarded(String asked, String line, boolean isProtected) {
    Vocabulary people =
        new Vocabulary(
            Coordinate.PERSON,
            "monday",
            List.of("nobody signed in", "ann", "ben"),
            List.of(new Vocabulary.Term("admins", IntSet.of(1))));
    Rule rule =
        Rule.matchingAll("a", "a", Verdict.ALLOW)
            .asking(Map.of(Coordinate.PERSON, Criterion.of(asked)));
    Rulebase base =
        Rulebase.empty("b")
            .withPinned(List.of(people))
            .withSections(List.of(new Section("s", "S", List.of(rule))));
    return results(
        base.withChecks(
            List.of(
                new SavedCheck("way in", line, Verdict.ALLOW, null, isProtected, "", List.of()))));
  }

  @Test
  void aSetOfConnectionsMustAllBeLetThroughOrAllBeRefused() {
    List<Connection> all = SmallWorld.connections();
    int held = 0;
    int failed = 0;
    for (int seed = 0; seed < Rounds.of(150); seed++) {
      SmallWorld world = new SmallWorld(seed);
      Rulebase base = world.rulebase(6);
      Rule question = world.rule("question").enabled(true);
      SlowRules slow = new SlowRules(base);
      String line = SavedCheck.SET + " " + ReachLine.format(question);
      for (Verdict expected : List.of(Verdict.ALLOW, Verdict.DROP)) {
        Rulebase checked = new Edit.PutCheck(check("set", line, expected), null).apply(base);
        CheckResult result = results(checked).getFirst();
        boolean right =
            all.stream()
                .filter(c -> slow.holds(question, c))
                .allMatch(
                    c ->
                        verdict(slow.decide(c).orElse(null)).letsThrough()
                            == expected.letsThrough());
        assertThat(result.holds()).as("seed " + seed + ", " + line).isEqualTo(right);
        if (!right) {
          assertThat(slow.holds(question, result.counterexample())).isTrue();
          assertThat(verdict(slow.decide(result.counterexample()).orElse(null)).letsThrough())
              .isNotEqualTo(expected.letsThrough());
        }
        held += right ? 1 : 0;
        failed += right ? 0 : 1;
      }
    }
    assertThat(held).isGreaterThan(Rounds.of(20));
    assertThat(failed).isGreaterThan(Rounds.of(20));
  }

  @Test
  void aSetFollowsARenameAndNamesNoRule() {
    Rulebase base = new SmallWorld(1).rulebase(3);
    SavedCheck set = check("set", "all what decides between north and pair", Verdict.DROP);
    Rulebase checked = new Edit.PutCheck(set, null).apply(base);
    assertThat(checked.checks().getFirst().connection()).isEqualTo("all from in north to pair");
    AddressObject pair =
        base.addresses().stream().filter(o -> o.name().equals("pair")).findFirst().orElseThrow();
    Edit rename = new Edit.PutAddress(new AddressObject("duo", pair.members(), ""), "pair");
    assertThat(rename.apply(checked).checks().getFirst().connection())
        .isEqualTo("all from in north to duo");
    assertThatThrownBy(() -> new SavedCheck("x", "all", Verdict.REJECT, null))
        .isInstanceOf(InvalidModel.class)
        .hasMessageContaining("allow or drop for a set");
    SavedCheck wrong = check("x", "all from nowhere", Verdict.DROP);
    assertThatThrownBy(() -> new Edit.PutCheck(wrong, null).apply(base))
        .isInstanceOf(InvalidModel.class)
        .hasMessageContaining("connection, character 10");
  }

  @Test
  void aProtectedConnectionMustGetThroughWhileTheDirectoryIsAway() {
    String ann = "from 10.0.0.1 to 10.0.0.2 tcp/22 person ann";
    CheckResult locked = guarded("admins", ann, true).getFirst();
    assertThat(locked.verdict()).isEqualTo(Verdict.ALLOW);
    assertThat(locked.lockedOut()).isEqualTo(new CheckResult.LockedOut(Verdict.DROP, null));
    assertThat(locked.holds()).isFalse();
    assertThat(guarded("admins", ann, false).getFirst().holds()).isTrue();
    assertThat(guarded("nobody signed in", "tcp/22 person nobody signed in", true))
        .allMatch(CheckResult::holds);
    CheckResult both = guarded("admins", "from 10.0.0.1 to 10.0.0.2 tcp/22", true).getFirst();
    assertThat(both.holds()).isFalse();
  }

  @Test
  void aProtectedConnectionIsOneThatIsLetThrough() {
    assertThatThrownBy(
            () -> new SavedCheck("x", "tcp/22", Verdict.REJECT, null, true, "", List.of()))
        .isInstanceOf(InvalidModel.class)
        .hasMessageContaining("lets a protected connection through");
  }

  @Test
  void whatIsGoneIsSaid() {
    Rulebase base = small();
    Rulebase without =
        base.withChecks(List.of(check("in", "from 10.0.0.1 in nowhere tcp/1", Verdict.DROP)));
    CheckResult result = results(without).getFirst();
    assertThat(result.holds()).isFalse();
    assertThat(result.verdict()).isNull();
    assertThat(result.refused()).contains("character 18", "the name of a zone", "nowhere");
  }

  @Test
  void aCheckMayAskForARule() {
    Rulebase base = small();
    String decides = results(base).getFirst().rule();
    Verdict verdict = results(base).getFirst().verdict();
    String line = base.checks().getFirst().connection();
    String other = decides == null ? base.rules().getFirst().id() : null;
    Rulebase asking =
        base.withChecks(
            List.of(
                new SavedCheck("any", line, verdict, null),
                new SavedCheck("this", line, verdict, decides),
                new SavedCheck("other", line, verdict, other == null ? "gone" : other)));
    assertThat(results(asking)).extracting(CheckResult::holds).containsExactly(true, true, false);
  }

  @Test
  void checksAreMadeChangedAndTakenBack() {
    Rulebase base = small();
    SavedCheck first = base.checks().getFirst();
    Edit change = new Edit.PutCheck(check("out", "FROM in north   tcp/2", Verdict.ALLOW), "In");
    Rulebase changed = change.apply(base);
    assertThat(changed.checks())
        .containsExactly(check("out", "from in north tcp/2", Verdict.ALLOW));
    assertThat(change.inverse(base).orElseThrow().apply(changed)).isEqualTo(base);
    assertThat(change.touched(base))
        .containsExactly(new Touched(Touched.CHECK, "out"), new Touched(Touched.CHECK, "in"));
    Edit delete = new Edit.DeleteCheck("IN");
    assertThat(delete.apply(base).checks()).isEmpty();
    assertThat(delete.inverse(base)).contains(new Edit.PutCheck(first, null));
    assertThatThrownBy(() -> new Edit.DeleteCheck("none").apply(base))
        .isInstanceOf(MissingTarget.class);
    assertThatThrownBy(() -> new Edit.PutCheck(first, null).apply(base))
        .isInstanceOf(InvalidModel.class)
        .hasMessageContaining("check name: expected a name not in use");
    assertThatThrownBy(
            () -> new Edit.PutCheck(check("bad", "from nobody", Verdict.DROP), null).apply(base))
        .isInstanceOf(InvalidModel.class)
        .hasMessageContaining("check \"bad\": connection, character 6");
    assertThatThrownBy(() -> check("bad", " ", Verdict.DROP)).isInstanceOf(InvalidModel.class);
  }
}
