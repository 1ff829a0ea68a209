package dev.ironsieve.acceptance;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Download;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import java.io.IOException;
import java.nio.file.Files;
import java.util.regex.Pattern;
import org.assertj.core.api.Assertions;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** Reach questions: by cell and by sentence, kept as checks, exported. */
class ReachTest extends OnTheBench {
  @BeforeEach
  void openReach() {
    bench.button("Reach").press("Enter");
    assertThat(matrix()).isVisible();
  }

  private Locator matrix() {
    return page().getByLabel("Zone matrix");
  }

  private Locator question() {
    return page()
        .getByRole(
            AriaRole.COMBOBOX, new Page.GetByRoleOptions().setName("Question").setExact(true));
  }

  private Locator answer() {
    return page().getByLabel("Question and answer").getByRole(AriaRole.ROW);
  }

  @Test
  void aCellAsksForTheDetailsByKey() {
    matrix().locator("[data-cell='0 0']").focus();
    bench.press("ArrowDown");
    bench.press("End");
    assertThat(matrix().locator("[data-cell='1 10']")).isFocused();
    assertThat(matrix().locator("[data-cell='1 10']"))
        .hasAttribute("aria-label", Pattern.compile("from terminals to internet: .*"));
    bench.press("Enter");
    assertThat(question()).hasValue("what decides between terminals and internet");
    assertThat(answer().filter(hasText("Let through"))).hasCount(1);
    Assertions.assertThat(page().url()).contains("q=what+decides+between+terminals+and+internet");
    checkAxe("reach");
    page().reload();
    assertThat(answer().filter(hasText("Let through"))).hasCount(1);
  }

  @Test
  void aQuestionIsCompletedAnsweredAndKeptAsACheck() {
    question().fill("who can reach data");
    bench.press("Tab");
    assertThat(question()).hasValue("who can reach datacentre ");
    bench.type("from guest-wifi");
    bench.press("Escape");
    assertThat(answer().filter(hasText("Guests never inside")).first()).isVisible();
    question().fill("who can reach datacentre from guest-wifi service tcp/445");
    bench.press("Escape");
    assertThat(page().getByText("Let through")).hasCount(0);
    bench.button("Keep as check…").click();
    bench.dialog().getByLabel("Name").fill("Guests reach no files");
    checkAxe("keep as check");
    assertThat(bench.dialog()).containsText("It passes now");
    bench.button("Save").click();
    assertThat(page().getByLabel("Kept as checks")).containsText("Guests reach no files");
    assertThat(page().getByLabel("Kept as checks")).containsText("passes");
    bench.button("Checks").click();
    assertThat(page().getByText("Guests reach no files")).isVisible();
  }

  @Test
  void aQuestionThatDoesNotReadSaysWhere() {
    question().fill("who can reach atlantis");
    assertThat(page().getByRole(AriaRole.ALERT)).containsText("a zone, an address");
    assertThat(page().getByRole(AriaRole.ALERT)).containsText("atlantis");
    browser.complaints().clear(); // of the refused question
  }

  @Test
  void anAnswerIsExported() throws IOException {
    question().fill("who can reach datacentre from offices");
    bench.press("Escape");
    assertThat(answer().filter(hasText("Names for everyone"))).hasCount(1);
    bench.button("Export…").click();
    Download saved =
        page()
            .waitForDownload(
                () ->
                    page()
                        .getByRole(AriaRole.MENUITEM, new Page.GetByRoleOptions().setName("CSV"))
                        .click());
    Assertions.assertThat(Files.readString(saved.path()))
        .startsWith("verdict,rule,name,who,to,for,except rules,example")
        .contains("allow,1,Names for everyone,,Name servers,");
  }

  private static Locator.FilterOptions hasText(String text) {
    return new Locator.FilterOptions().setHasText(text);
  }
}
