package dev.ironsieve.acceptance;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** Findings by cause: repairs are looked at and applied, and findings accepted, by keyboard. */
class FindingsTest extends OnTheBench {
  private static final String JOINT = "Rules 10 and 12 together take rule 13";

  @BeforeEach
  void openFindings() {
    page()
        .getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Findings").setExact(true))
        .press("Enter");
    assertThat(cause(JOINT)).isVisible();
    assertThat(page().getByLabel("Causes")).isFocused();
  }

  private Locator cause(String title) {
    return page()
        .getByRole(AriaRole.REGION, new Page.GetByRoleOptions().setName(title).setExact(true));
  }

  private Locator count(String kind) {
    return page().locator("[data-count=" + kind + "]");
  }

  @Test
  void aRepairIsLookedAtAndApplied() {
    assertThat(count("shadowed")).hasText("5 shadowed");
    assertThat(cause(JOINT)).containsText("Move \"Kiosk update service\" above");
    bench.press("2");
    assertThat(cause(JOINT)).containsText("drop becomes allow");
    checkAxe("findings");
    bench.press("Enter");
    assertThat(cause(JOINT)).hasCount(0);
    assertThat(count("shadowed")).hasText("4 shadowed");
    bench.press("Control+z");
    assertThat(cause(JOINT)).isVisible();
  }

  @Test
  void severalRepairsAreAppliedInOneStep() {
    assertThat(cause(JOINT)).containsText("Move \"Kiosk update service\" above");
    bench.press("Space");
    assertThat(cause(JOINT)).containsText("marked: ");
    Locator marked = page().getByText("2 repairs are marked.");
    for (int i = 0; i < 8 && !marked.isVisible(); i++) {
      bench.press("ArrowDown");
      assertThat(page().locator("[data-cause][data-focused]").getByText("Asking…")).hasCount(0);
      bench.press("Space");
    }
    assertThat(marked).isVisible();
    bench.press("Shift+A");
    assertThat(bench.dialog()).containsText("2 repairs at once");
    checkAxe("repairs at once");
    bench.button("Apply all").press("Enter");
    assertThat(bench.dialog()).hasCount(0);
    assertThat(cause(JOINT)).hasCount(0);
    bench.press("Control+z");
    assertThat(cause(JOINT)).isVisible();
    assertThat(count("shadowed")).hasText("5 shadowed");
  }

  @Test
  void aFindingIsAcceptedWithAReasonAndComesBackWhenACauseChanges() {
    bench.press("a");
    bench.dialog().getByLabel("Why it is as it should be").waitFor();
    bench.type("The kiosks get another network in spring");
    checkAxe("accept");
    bench
        .dialog()
        .getByRole(AriaRole.BUTTON, new Locator.GetByRoleOptions().setName("Accept").setExact(true))
        .press("Enter");
    assertThat(cause(JOINT)).hasCount(0);
    assertThat(count("shadowed")).hasText("4 shadowed");
    page()
        .getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("accepted 1"))
        .press("Enter");
    assertThat(page().getByText("The kiosks get another network in spring")).isVisible();
    assertThat(page().getByText("accepted by Ruth Okell")).isVisible();
    page().reload();
    assertThat(count("shadowed")).hasText("4 shadowed");
    page()
        .getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Rules").setExact(true))
        .press("Enter");
    assertThat(bench.rule("h12")).not().containsText("shadowed");
    bench.focus("h11");
    bench.press("Control+/");
    bench.press("Control+/");
    assertThat(bench.rule("h12")).not().containsText("shadowed"); // all is as it was
    bench.press("Enter");
    page().getByLabel("Name of rule 12").fill("Terminals: only booking");
    bench.press("Enter");
    assertThat(bench.rule("h12")).containsText("shadowed by 10 and 12");
  }
}
