package dev.ironsieve.acceptance;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import org.junit.jupiter.api.Test;

/** The way of a draft back to a revision, to a named state, and of one rule. */
class GoBackTest extends OnTheBench {
  private void goTo(String view) {
    page().getByLabel("Main navigation").getByText(view).click();
  }

  private void disable(String rule) {
    bench.focus(rule);
    bench.press("Control+/");
    assertThat(bench.rule(rule)).containsText("disabled");
  }

  private Locator named(AriaRole role, String name) {
    return page().getByRole(role, new Page.GetByRoleOptions().setName(name).setExact(true));
  }

  private void agree() {
    bench
        .dialog()
        .getByText("Go back", new Locator.GetByTextOptions().setExact(true))
        .press("Enter");
    assertThat(bench.dialog()).hasCount(0);
  }

  @Test
  void oneRuleIsTakenBackInTheReview() {
    disable("h05");
    disable("h07");
    goTo("Publish");
    named(AriaRole.BUTTON, "Take back the changes of Echo inside").press("Enter");
    assertThat(bench.dialog()).containsText("Take back the changes of “Echo inside”?");
    agree();
    assertThat(bench.cause("Echo inside")).hasCount(0);
    goTo("Rules");
    assertThat(bench.rule("h05")).not().containsText("disabled");
    assertThat(bench.rule("h07")).containsText("disabled");
    bench.focus("h05");
    bench.press("Control+z");
    assertThat(bench.rule("h05")).containsText("disabled");
  }

  @Test
  void anEarlierRevisionComesBackAsADraft() {
    disable("h05");
    goTo("Publish");
    page().getByLabel("Reason to override").fill("A test");
    bench.button("Publish revision 2").press("Enter");
    assertThat(page().getByText("draft on revision 2, 0 changes")).isVisible();
    bench.button("Go back to revision 1").press("Enter");
    agree();
    assertThat(page().getByText("draft on revision 2, 1 change")).isVisible();
    assertThat(bench.cause("Echo inside")).containsText("drop → allow");
    goTo("Rules");
    assertThat(bench.rule("h05")).not().containsText("disabled");
    bench.focus("h05");
    bench.press("Control+z");
    assertThat(bench.rule("h05")).containsText("disabled");
  }

  @Test
  void aNamedStateComesBack() {
    goTo("History");
    bench.button("Name the present state…").press("Enter");
    bench.type("Before the summer");
    bench.press("Enter");
    Locator states = named(AriaRole.REGION, "Named states");
    assertThat(states).containsText("Before the summer");
    assertThat(states).containsText("Ruth Okell");
    checkAxe("history with a named state");
    goTo("Rules");
    disable("h05");
    goTo("History");
    bench.button("Go back to Before the summer").press("Enter");
    agree();
    assertThat(page().getByText("went back to Before the summer")).isVisible();
    goTo("Rules");
    assertThat(bench.rule("h05")).not().containsText("disabled");
    goTo("History");
    bench.button("Delete the state Before the summer").press("Enter");
    assertThat(states).not().containsText("Before the summer");
  }
}
