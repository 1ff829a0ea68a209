package dev.ironsieve.core.text;

import static org.assertj.core.api.Assertions.assertThat;

import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Vocabulary;
import dev.ironsieve.core.sets.IntSet;
import java.util.List;
import org.junit.jupiter.api.Test;

class TermCompletionTest {
  private static final Vocabulary APPLICATIONS =
      new Vocabulary(
          Coordinate.APPLICATION,
          "e1",
          List.of("Gullwire: view", "Gullwire: post", "Tern", "Lantern", "Skerrymail"),
          List.of(
              new Vocabulary.Term("Gullwire", IntSet.range(0, 1)),
              new Vocabulary.Term("category mail", IntSet.of(4)),
              new Vocabulary.Term("nobody", IntSet.EMPTY)));

  private static List<String> names(String text, int most) {
    return TermCompletion.of(List.of(APPLICATIONS), text, most).stream()
        .map(TermCompletion.Option::name)
        .toList();
  }

  @Test
  void theBestFitComesFirst() {
    assertThat(names("tern", 9)).containsExactly("Tern", "Lantern");
    assertThat(names("GULL", 9)).containsExactly("Gullwire", "Gullwire: post", "Gullwire: view");
    assertThat(names("mail", 9)).containsExactly("category mail", "Skerrymail");
    assertThat(names(" post ", 9)).containsExactly("Gullwire: post");
    assertThat(names("quill", 9)).isEmpty();
  }

  @Test
  void nothingTypedFitsEverythingUpToTheMost() {
    assertThat(names("", 3)).containsExactly("nobody", "Gullwire", "category mail");
  }

  @Test
  void aSetTellsItsMembers() {
    assertThat(TermCompletion.of(List.of(APPLICATIONS), "gullwire", 1))
        .containsExactly(
            new TermCompletion.Option(
                Coordinate.APPLICATION,
                "Gullwire",
                2,
                List.of("Gullwire: view", "Gullwire: post")));
    assertThat(TermCompletion.of(List.of(APPLICATIONS), "nobody", 1).getFirst().members()).isZero();
  }
}
