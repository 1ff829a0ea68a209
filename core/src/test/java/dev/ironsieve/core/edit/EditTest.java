package dev.ironsieve.core.edit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.ironsieve.core.model.AddressItem;
import dev.ironsieve.core.model.AddressObject;
import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.InvalidModel;
import dev.ironsieve.core.model.ObjectKind;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Section;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.model.Zone;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.twin.Rounds;
import dev.ironsieve.core.twin.SmallWorld;
import java.util.List;
import org.junit.jupiter.api.Test;

class EditTest {
  private static Rule rule(String id) {
    return Rule.matchingAll(id, "rule " + id, Verdict.ALLOW);
  }

  private static final Rulebase BASE =
      new Rulebase(
          "test",
          List.of(new Zone("inside", List.of(), "")),
          List.of(new AddressObject("hosts", List.of(AddressItem.parse("10.0.0.1")), "")),
          List.of(),
          List.of(
              new Section("s", "First", List.of(rule("a"), rule("b"), rule("c"))),
              new Section("t", "Second", List.of(rule("d")))));

  private static List<String> order(Rulebase base) {
    return base.sections().stream()
        .map(s -> s.id() + ":" + String.join("", s.rules().stream().map(Rule::id).toList()))
        .toList();
  }

  @Test
  void everyEditIsTakenBackByItsInverse() {
    int inverted = 0;
    for (int seed = 0; seed < Rounds.of(400); seed++) {
      RandomEdits edits = new RandomEdits(seed);
      Rulebase base = new SmallWorld(seed).rulebase(6);
      for (int step = 0; step < 10; step++) {
        Edit edit = edits.next(base);
        Rulebase after = edit.apply(base);
        Rulebase back = edit.inverse(base).orElseThrow().apply(after);
        assertThat(back).as("seed %d, %s", seed, edit).isEqualTo(base);
        inverted++;
        base = after;
      }
    }
    assertThat(inverted).isEqualTo(Rounds.of(400) * 10);
  }

  @Test
  void placesAreRelativeToWhatIsSeen() {
    List<Rule> fresh = List.of(rule("x"), rule("y"));
    assertThat(order(new Edit.InsertRules(fresh, new Place.Above("b")).apply(BASE)))
        .containsExactly("s:axybc", "t:d");
    assertThat(order(new Edit.InsertRules(fresh, new Place.Below("c")).apply(BASE)))
        .containsExactly("s:abcxy", "t:d");
    assertThat(order(new Edit.MoveRules(List.of("c", "a"), new Place.EndOf("t")).apply(BASE)))
        .containsExactly("s:b", "t:dca");
    assertThat(order(new Edit.MoveRules(List.of("d"), new Place.StartOf("s")).apply(BASE)))
        .containsExactly("s:dabc", "t:");
  }

  @Test
  void anEditOfWhatIsGoneSaysSo() {
    assertThatThrownBy(() -> new Edit.DeleteRules(List.of("a", "zz")).apply(BASE))
        .isInstanceOf(MissingTarget.class)
        .hasMessage("no rule \"zz\" in the rulebase");
    assertThatThrownBy(
            () -> new Edit.InsertRules(List.of(rule("x")), new Place.Above("zz")).apply(BASE))
        .isInstanceOf(MissingTarget.class);
    assertThatThrownBy(() -> new Edit.MoveRules(List.of("a"), new Place.Below("a")).apply(BASE))
        .isInstanceOf(InvalidModel.class)
        .hasMessageContaining("not itself moved");
    assertThatThrownBy(() -> new Edit.DeleteSection("s").apply(BASE))
        .hasMessageContaining("3 rules");
  }

  @Test
  void renamingAnObjectRenamesItWhereverItIsMentioned() {
    Rule using =
        rule("a")
            .matching(
                Criterion.of("inside"),
                Criterion.of(AddressItem.parse("HOSTS")),
                Criterion.any(),
                Criterion.any(),
                Criterion.any());
    Rulebase base = new Edit.ReplaceRules(List.of(using)).apply(BASE);
    Edit rename =
        new Edit.PutAddress(
            new AddressObject("kiosks", List.of(AddressItem.parse("10.0.0.2")), ""), "hosts");
    Rulebase after = rename.apply(base);
    assertThat(after.rules().getFirst().fromAddresses())
        .isEqualTo(Criterion.of(AddressItem.parse("kiosks")));
    assertThat(rename.touched(base))
        .containsExactlyInAnyOrder(
            new Touched("address", "kiosks"),
            new Touched("address", "hosts"),
            new Touched("rule", "a"));
  }

  @Test
  void anObjectInUseIsNotDeletedAndTheUserIsNamed() {
    Rule using =
        rule("a")
            .matching(
                Criterion.of("inside"),
                Criterion.any(),
                Criterion.any(),
                Criterion.any(),
                Criterion.any());
    Rulebase base = new Edit.ReplaceRules(List.of(using)).apply(BASE);
    assertThatThrownBy(() -> new Edit.DeleteObject(ObjectKind.ZONE, "inside").apply(base))
        .isInstanceOf(InvalidModel.class)
        .hasMessageContaining("the first being \"rule a\"");
    assertThat(new Edit.DeleteObject(ObjectKind.ADDRESS, "hosts").apply(base).addresses())
        .isEmpty();
    assertThatThrownBy(() -> new Edit.DeleteObject(ObjectKind.SERVICE, "web").apply(base))
        .isInstanceOf(MissingTarget.class);
  }

  @Test
  void aBatchHappensWhollyOrNotAtAll() {
    Edit good = new Edit.DeleteRules(List.of("a"));
    Edit bad = new Edit.DeleteRules(List.of("zz"));
    assertThatThrownBy(() -> new Edit.Batch(List.of(good, bad)).apply(BASE))
        .isInstanceOf(MissingTarget.class);
    assertThat(order(BASE)).containsExactly("s:abc", "t:d");
  }
}
