package dev.ironsieve.core.vocabulary;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.ironsieve.core.model.GatewaySettings;
import dev.ironsieve.core.model.InvalidModel;
import dev.ironsieve.core.model.TermObject;
import dev.ironsieve.core.model.Vocabulary;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;

/** The values of a vocabulary of times, said outright, and which of them a time has. */
class TimeVocabularyTest {
  @Test
  void aTimeHasTheValueThatBeganLast() {
    List<TermObject> none = List.of();
    Vocabulary week = TimeVocabulary.of(none, List.of("mon 06:00-22:00"), GatewaySettings.UTC);
    assertThat(week.values()).containsExactly("mon 00:00", "mon 06:00", "mon 22:00");
    assertThat(value(week, "mon 00:00")).contains("mon 00:00");
    assertThat(value(week, "mon 05:59")).contains("mon 00:00");
    assertThat(value(week, "Mon 06:00")).contains("mon 06:00");
    assertThat(value(week, "2026-12-21T06:01")).contains("mon 06:00");
    assertThat(value(week, "sun 23:59")).contains("mon 22:00");
    for (String wrong : List.of("mon", " 06:00", "mon soon", "mon 24:00", "moon 06:00", "06:00")) {
      assertThat(value(week, wrong)).as(wrong).isEqualTo(Optional.empty());
    }
    Vocabulary dated = TimeVocabulary.of(none, List.of("2026-12-24"), GatewaySettings.UTC);
    assertThat(dated.values())
        .containsExactly(
            "mon 00:00 before 2026-12-24",
            "mon 00:00 from 2026-12-24",
            "mon 00:00 from 2026-12-25");
    assertThat(value(dated, "2026-12-23T23:59")).contains("mon 00:00 before 2026-12-24");
    assertThat(value(dated, "2026-12-24T00:00")).contains("mon 00:00 from 2026-12-24");
    assertThat(value(dated, "2026-12-25T00:00")).contains("mon 00:00 from 2026-12-25");
    assertThat(value(dated, "mon 00:00")).isEmpty();
  }

  @Test
  void partsOfTimeAreAsManyAsIsSaidAndNoMore() {
    List<String> said = new ArrayList<>(); // 32 parts of a week, with the one from its beginning
    said.addAll(List.of("daily 01-02", "daily 03-04", "mon 05-06", "mon 00-07"));
    LocalDate day = LocalDate.of(2026, 1, 1);
    for (int i = 0; i < 1562; i++, day = day.plusDays(2)) {
      said.add(day.toString()); // begins a span, as does the day behind it
    }
    assertThat(TimeVocabulary.of(List.of(), said, GatewaySettings.UTC).values()).hasSize(32 * 3125);
    said.add(day.toString());
    assertThatThrownBy(() -> TimeVocabulary.of(List.of(), said, GatewaySettings.UTC))
        .isInstanceOf(InvalidModel.class)
        .hasMessageContaining("at most 100000")
        .hasMessageContaining("found 100064");
  }

  private static Optional<String> value(Vocabulary vocabulary, String said) {
    return new ValueFinder(vocabulary).value(said);
  }
}
