package dev.ironsieve.acceptance;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;

/**
 * Everyday flows by keyboard alone, with the keys counted: {@code docs/flows.md} tells their
 * number, and is held to it.
 */
class FlowsTest extends OnTheBench {
  private static final Path FLOWS = Path.of("../docs/flows.md");

  private int keys;

  private void press(String key) {
    keys++;
    bench.press(key);
  }

  private void type(String text) {
    keys += text.length();
    bench.type(text);
  }

  /** Types a chip, and takes the first completion. */
  private void chip(String text) {
    type(text);
    bench.options().first().waitFor();
    press("Enter");
  }

  /** Finds a rule by words, and gives it the focus. */
  private void find(String words) {
    press("/");
    type(words);
    press("Enter");
    assertThat(page().locator("[data-rule]")).hasCount(1);
    press("ArrowDown");
  }

  private Locator rule(String name) {
    return page().locator("[data-rule]").filter(new Locator.FilterOptions().setHasText(name));
  }

  private void name(String name) {
    page().locator("input[aria-label^='Name of rule']").waitFor();
    type(name);
    press("Enter");
  }

  private void allow() {
    press("v");
    press("Enter");
    page().locator("[role=menuitem]").first().waitFor();
    press("Enter");
  }

  /** Compares the number of keys with that of the flow's row. */
  private void counted(int flow) throws IOException {
    Matcher row =
        Pattern.compile("(?m)^\\| " + flow + " \\|[^|]*\\| (\\d+) \\|")
            .matcher(Files.readString(FLOWS));
    assertThat(row.find()).as("row of flow " + flow + " in " + FLOWS).isTrue();
    assertThat(keys).as("keys of flow " + flow).isEqualTo(Integer.parseInt(row.group(1)));
  }

  @Test
  void oneApplicationIsRefusedAboveTheGeneralAllow() throws IOException {
    find("everybody");
    press("Control+Shift+Enter");
    name("No Gullwire");
    press("s");
    chip("Gullwire");
    press("Escape");
    assertThat(rule("No Gullwire")).containsText("drop");
    assertThat(rule("No Gullwire").locator("[data-part=for]")).containsText("Gullwire");
    counted(1);
  }

  @Test
  void oneFeatureIsAllowedAndTheOthersRefused() throws IOException {
    find("everybody");
    press("Control+Shift+Enter");
    name("Films may be seen");
    press("s");
    chip("Lanternreel: view");
    press("Escape");
    allow();
    assertThat(rule("Films may be seen")).containsText("allow");
    press("Control+Enter");
    name("No other film");
    press("s");
    chip("Lanternreel");
    press("Escape");
    assertThat(rule("No other film")).containsText("drop");
    assertThat(rule("Films may be seen")).containsText("Lanternreel: view");
    counted(2);
  }

  @Test
  void myLastTenChangesAreUndoneAndNotAColleagues() throws IOException {
    for (int i = 0; i < 5; i++) {
      bench.focus("h05");
      bench.press("Control+/");
      bench.focus("h06");
      bench.press("Control+/");
    }
    page().getByText("all saved").waitFor();
    Page other = browser.signedIn(server.address(), "tomas.wren");
    BenchPage colleague = new BenchPage(other);
    other.navigate(page().url());
    colleague.rule("h09").click();
    colleague.press("Control+/");
    assertThat(bench.rule("h09")).containsText("disabled");
    other.context().close();
    for (int i = 0; i < 10; i++) {
      press("Control+z");
    }
    assertThat(bench.rule("h05")).not().containsText("disabled");
    assertThat(bench.rule("h06")).not().containsText("disabled");
    assertThat(bench.rule("h09")).containsText("disabled");
    assertThat(page().getByText("1 change", new Page.GetByTextOptions().setExact(false)))
        .hasCount(1);
    counted(12);
  }
}
