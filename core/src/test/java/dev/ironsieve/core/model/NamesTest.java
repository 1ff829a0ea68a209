package dev.ironsieve.core.model;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import java.util.List;
import org.junit.jupiter.api.Test;

class NamesTest {
  @Test
  void namesAreAsLongAsIsSaidAndNoLonger() {
    String longest = "a".repeat(Names.MAX_NAME);
    assertThat(Names.checkObject("zone", longest)).isEqualTo(longest);
    assertThat(Names.checkTitle("rule", longest)).isEqualTo(longest);
    assertThat(Names.checkId("rule", "a".repeat(40))).hasSize(40);
    assertThat(Names.checkNote("n".repeat(Names.MAX_NOTE))).hasSize(Names.MAX_NOTE);
    Names.checkValue("value", "v".repeat(Names.MAX_VALUE));
    for (Runnable tooLong :
        List.<Runnable>of(
            () -> Names.checkObject("zone", longest + "a"),
            () -> Names.checkTitle("rule", longest + "a"),
            () -> Names.checkId("rule", "a".repeat(41)),
            () -> Names.checkNote("n".repeat(Names.MAX_NOTE + 1)),
            () -> Names.checkValue("value", "v".repeat(Names.MAX_VALUE + 1)))) {
      assertThatThrownBy(tooLong::run).isInstanceOf(InvalidModel.class);
    }
  }

  @Test
  void whatIsNotThereIsRefusedWithItsPlace() {
    for (Runnable missing :
        List.<Runnable>of(
            () -> Names.checkObject("here", null),
            () -> Names.checkTitle("here", null),
            () -> Names.checkId("here", null),
            () -> Names.checkValue("here", null))) {
      InvalidModel error = catchThrowableOfType(InvalidModel.class, missing::run);
      assertThat(error.place()).startsWith("here");
      assertThat(error.expected()).isNotBlank();
      assertThat(error.found()).isEqualTo("nothing");
    }
  }

  @Test
  void notesHaveLinesAndTabsAndNoOtherSigns() {
    assertThat(Names.checkNote("two\nlines\tand a tab")).isEqualTo("two\nlines\tand a tab");
    assertThatThrownBy(() -> Names.checkNote("a\rb")).hasMessageContaining("found 3 characters");
    assertThatThrownBy(() -> Names.checkNote(null)).hasMessageContaining("found nothing");
  }

  @Test
  void whatNoEncodingCanCarryIsRefused() {
    assertThat(Names.isPrintable("\uD7FF \uE000 \uD83D\uDEA2")).isTrue();
    for (String half : List.of("\uD800", "\uDBFF", "\uDC00", "\uDFFF", "\u0000", "\u007F")) {
      assertThat(Names.isPrintable("a" + half)).as("%04x", (int) half.charAt(0)).isFalse();
    }
  }

  @Test
  void whatIsFoundIsShownInPart() {
    assertThat(Names.quoted(null)).isEqualTo("nothing");
    assertThat(Names.quoted("a".repeat(100))).isEqualTo('"' + "a".repeat(100) + '"');
    assertThat(Names.quoted("a".repeat(100) + "b")).isEqualTo('"' + "a".repeat(100) + "…\"");
  }
}
