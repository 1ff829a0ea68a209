package dev.ironsieve.acceptance;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import java.util.List;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** The table of checks: edited in place by key, filled from a table, from rules and findings. */
class ChecksTest extends OnTheBench {
  @BeforeEach
  void openChecks() {
    bench.button("Checks").press("Enter");
    assertThat(table()).isFocused();
  }

  private Locator table() {
    return page().getByRole(AriaRole.GRID, new Page.GetByRoleOptions().setName("Checks"));
  }

  private Locator row(String name) {
    return table().getByRole(AriaRole.ROW).filter(new Locator.FilterOptions().setHasText(name));
  }

  @Test
  void cellsAreEditedByKeyInOneAndInManyChecks() {
    String first = table().locator("[aria-label^='Name: ']").first().innerText();
    bench.press("Enter");
    bench.press("Control+a");
    bench.type("The way in");
    bench.press("Enter");
    assertThat(row("The way in")).hasCount(1);
    assertThat(row(first)).hasCount(0);
    bench.press("ArrowUp");
    for (int i = 0; i < 4; i++) {
      bench.press("ArrowRight");
    }
    bench.press("Space");
    bench.press("Shift+ArrowDown");
    assertThat(page().getByText("2 selected")).isVisible();
    bench.press("Enter");
    bench.type("Every day");
    bench.press("Enter");
    assertThat(row("2 of 2 pass").first()).containsText("Every day");
    checkAxe("checks");
    bench.press("Control+z");
    assertThat(table().getByText("Every day")).hasCount(0);
    bench.press("Control+z");
    assertThat(row(first)).hasCount(1);
  }

  @Test
  void aTableFromASpreadsheetIsPastedWithItsErrors() {
    page().context().grantPermissions(List.of("clipboard-read", "clipboard-write"));
    page()
        .evaluate(
            "navigator.clipboard.writeText('Kiosk prints\\tfrom 10.4.2.9 to 10.4.3.7 tcp/9100\\tdrop\\n"
                + "Broken\\tfrom nowhere\\tallow\\n')");
    bench.press("Control+v");
    assertThat(bench.dialog()).containsText("Kiosk prints");
    assertThat(bench.dialog()).containsText("at character 6");
    assertThat(bench.dialog().getByLabel("Column 2")).hasValue("connection");
    checkAxe("paste checks");
    bench.button("Add 1").click();
    assertThat(bench.dialog().getByRole(AriaRole.ALERT)).containsText("1 of 2 rows have errors");
    bench.dialog().getByLabel("leave out the 1 row with errors").check();
    bench.button("Add 1").click();
    assertThat(bench.dialog()).hasCount(0);
    assertThat(row("Kiosk prints")).hasCount(1);
  }

  @Test
  void coverageAddsTheCheckThatWouldNotice() {
    bench.button("Coverage").click();
    Locator coverage = page().getByLabel("Coverage", new Page.GetByLabelOptions().setExact(true));
    Locator missed =
        page().getByLabel("Mistakes that no check notices").getByRole(AriaRole.LISTITEM);
    missed.first().waitFor();
    checkAxe("coverage");
    String mistake = missed.first().innerText();
    missed
        .first()
        .getByRole(AriaRole.BUTTON, new Locator.GetByRoleOptions().setName("Add"))
        .click();
    assertThat(missed.first()).not().hasText(mistake);
    assertThat(coverage).containsText("single mistakes that would change a verdict");
  }

  @Test
  void aRuleGetsTheChecksThatNoticeItsMistakes() {
    bench.button("Rules").click();
    bench.focus("h08");
    bench.press("k");
    assertThat(bench.dialog()).containsText("case 1");
    bench.dialog().getByText("Add ").click();
    assertThat(bench.dialog()).hasCount(0);
    bench.button("Checks").click();
    assertThat(row("case 1").first()).isVisible();
  }

  @Test
  void theProbeHasFieldsAndTellsWhatWouldChangeIt() {
    bench.button("Rules").click();
    bench.probe("from 10.1.201.9 to 10.4.3.7 tcp/9100");
    assertThat(bench.probeAnswer()).containsText("What would change it");
    page().getByText("What would change it").click();
    assertThat(bench.probeAnswer()).containsText("held the connection");
    page().getByText("Fields", new Page.GetByTextOptions().setExact(true)).click();
    Locator fields = page().getByLabel("Fields of the connection");
    assertThat(fields.getByLabel("service")).hasValue("tcp/9100");
    checkAxe("probe in fields");
    fields.getByLabel("service").fill("tcp/443");
    assertThat(bench.probeBox()).hasValue("from 10.1.201.9 to 10.4.3.7 tcp/443");
  }
}
