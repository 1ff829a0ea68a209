package dev.ironsieve.core.edit;

import static org.assertj.core.api.Assertions.assertThat;

import dev.ironsieve.core.model.ObjectKind;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.text.RuleText;
import dev.ironsieve.core.twin.SmallWorld;
import java.util.List;
import org.junit.jupiter.api.Test;

class MissingObjectTest {
  private static final Rulebase BASE = new SmallWorld(1).rulebase(3);

  private static List<MissingObject> missing(String... texts) {
    return MissingObject.in(
        java.util.stream.IntStream.range(0, texts.length)
            .mapToObj(i -> RuleText.parse(texts[i], "x" + i))
            .toList(),
        BASE);
  }

  @Test
  void whatARulebaseHasIsNotMissing() {
    for (int seed = 0; seed < 50; seed++) {
      Rulebase base = new SmallWorld(seed).rulebase(6);
      assertThat(MissingObject.in(base.rules(), base)).isEmpty();
    }
    assertThat(missing("allow \"a\" from 10.0.0.1 in north service tcp/443 site *.quay.example"))
        .isEmpty();
  }

  @Test
  void whatItLacksIsNamedOnce() {
    assertThat(
            missing(
                "allow \"a\" from Kiosks, PAIR in quay to not kiosks in north service \"Web 2\"",
                "drop \"b\" from in Quay site \"Shops\" time \"Nights\" device \"Fit\" plan Slow"
                    + " notice Stop"))
        .containsExactly(
            new MissingObject(ObjectKind.ZONE, "quay"),
            new MissingObject(ObjectKind.ADDRESS, "Kiosks"),
            new MissingObject(ObjectKind.SERVICE, "Web 2"),
            new MissingObject(ObjectKind.HOST_LIST, "Shops"),
            new MissingObject(ObjectKind.SCHEDULE, "Nights"),
            new MissingObject(ObjectKind.DEVICE_STATE, "Fit"),
            new MissingObject(ObjectKind.RATE_PLAN, "Slow"),
            new MissingObject(ObjectKind.NOTICE, "Stop"));
  }

  @Test
  void peopleAndApplicationsAreNoObjects() {
    Rule rule = RuleText.parse("allow \"a\" person nobody-knows application Unheard", "x");
    assertThat(MissingObject.in(List.of(rule), BASE)).isEmpty();
  }
}
