package dev.ironsieve.core.edit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.InvalidModel;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.model.Vocabulary;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.sets.IntSet;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;

/** Editions of vocabularies, adopted by a rulebase and undone. */
class VocabularyEditTest {
  private static final Vocabulary OLD =
      new Vocabulary(
          Coordinate.APPLICATION,
          "e1",
          List.of("Tern", "Rook"),
          List.of(new Vocabulary.Term("birds", IntSet.range(0, 1))));
  private static final Vocabulary NEXT =
      new Vocabulary(
          Coordinate.APPLICATION,
          "e2",
          List.of("Eider", "Rook", "Tern"),
          List.of(
              new Vocabulary.Term("birds", IntSet.of(1)),
              new Vocabulary.Term("ducks", IntSet.of(0))));
  private static final Rulebase EMPTY = Rulebase.empty("test");

  private static Edit inverse(Edit edit, Rulebase before) {
    return edit.inverse(before).orElseThrow();
  }

  @Test
  void anEditionIsTakenAndTakenBack() {
    Edit first = new Edit.PutVocabulary(OLD);
    Rulebase one = first.apply(EMPTY);
    assertThat(one.vocabulary(Coordinate.APPLICATION)).contains(OLD);
    assertThat(inverse(first, EMPTY).apply(one)).isEqualTo(EMPTY);
    Edit second = new Edit.PutVocabulary(NEXT);
    Rulebase two = second.apply(one);
    assertThat(two.vocabularies()).containsExactly(NEXT);
    assertThat(inverse(second, one).apply(two)).isEqualTo(one);
    Edit none = new Edit.DeleteVocabulary(Coordinate.APPLICATION);
    assertThat(none.apply(two)).isEqualTo(EMPTY);
    assertThat(inverse(none, two).apply(EMPTY)).isEqualTo(two);
    assertThat(second.touched(one)).isEqualTo(none.touched(two));
    assertThatThrownBy(() -> none.apply(EMPTY)).isInstanceOf(MissingTarget.class);
  }

  @Test
  void anEditionThatDoesNotKnowWhatARuleSaysIsRefused() {
    Rule ducks =
        Rule.matchingAll("r", "ducks out", Verdict.DROP)
            .asking(Map.of(Coordinate.APPLICATION, Criterion.of("ducks")));
    Rulebase base = new Edit.PutVocabulary(NEXT).apply(EMPTY);
    Rulebase said =
        new Edit.InsertRules(List.of(ducks), new Place.EndOf(base.sections().getFirst().id()))
            .apply(base);
    assertThatThrownBy(() -> new Edit.PutVocabulary(OLD).apply(said))
        .isInstanceOf(InvalidModel.class)
        .hasMessageContaining("rule \"ducks out\"")
        .hasMessageContaining("\"ducks\"");
  }

  @Test
  void twoEditionsAreLaidOverTheValuesOfBoth() {
    List<String> all = NEXT.valuesWith(OLD);
    assertThat(all).containsExactly("Tern", "Rook", "Eider");
    assertThat(OLD.over(all).terms().getFirst().members()).isEqualTo(IntSet.range(0, 1));
    assertThat(NEXT.over(all).meanings())
        .containsEntry("birds", IntSet.of(1))
        .containsEntry("ducks", IntSet.of(2))
        .containsEntry("tern", IntSet.of(0));
  }
}
