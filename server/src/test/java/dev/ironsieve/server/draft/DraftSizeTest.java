package dev.ironsieve.server.draft;

import static org.assertj.core.api.Assertions.assertThatCode;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.ironsieve.server.refusal.Refusal;
import org.junit.jupiter.api.Test;

/** The number of rules that a server takes, just below, at and just above its limit. */
class DraftSizeTest {
  @Test
  void upToTheLimitRulebasesAreTaken() {
    assertThatCode(() -> DraftSize.check(29_999, 30_000)).doesNotThrowAnyException();
    assertThatCode(() -> DraftSize.check(30_000, 30_000)).doesNotThrowAnyException();
    assertThatThrownBy(() -> DraftSize.check(30_001, 30_000))
        .isInstanceOf(Refusal.Invalid.class)
        .hasMessageContaining("rules")
        .hasMessageContaining("at most 30000")
        .hasMessageContaining("30001");
  }
}
