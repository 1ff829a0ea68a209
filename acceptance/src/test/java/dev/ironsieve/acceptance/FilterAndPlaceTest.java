package dev.ironsieve.acceptance;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.SelectOption;
import java.util.List;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;

/** The fields of the filter, the places of a rule, and changes of many rules, by keyboard alone. */
class FilterAndPlaceTest extends OnTheBench {
  private void filter(String text) {
    bench.press("/");
    bench.press("Control+a");
    bench.type(text);
    bench.press("Escape"); // closes completions, if there are any
    if (page().getByLabel("Filter the rules").inputValue().isEmpty()) {
      bench.press("/");
      bench.type(text);
    }
    bench.press("Enter");
  }

  private Locator rows() {
    return page().locator("[data-rule]");
  }

  @Test
  void theFilterAsksForWhatRulesMatchAndSaysHowToWidenIt() {
    filter("touches 10.40.0.53 verdict drop");
    assertThat(bench.rule("h05")).hasCount(0);
    assertThat(bench.rule("h01")).hasCount(0); // which allows
    filter("tcp/9100 verdict allow");
    assertThat(page().getByText("Printing at the piers")).isVisible(); // inside "Ticket printing"
    assertThat(bench.rule("h01")).hasCount(0);
    filter("41");
    assertThat(rows()).hasCount(1);
    assertThat(rows().first()).hasAttribute("aria-rowindex", "41");
    filter("finding shadowed tag nowhere");
    assertThat(page().getByText("No rule fits.")).isVisible();
    page()
        .getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Without tag nowhere"))
        .press("Enter");
    assertThat(rows()).hasCount(5);
    assertThat(page()).hasURL(Pattern.compile("q=finding"));
    page().reload();
    assertThat(rows()).hasCount(5);
  }

  @Test
  void theFilterIsCompleted() {
    bench.press("/");
    bench.type("verd");
    assertThat(bench.options().first()).containsText("verdict");
    bench.press("Tab");
    bench.type("rej");
    assertThat(bench.options().first()).containsText("reject");
    bench.press("Tab");
    assertThat(page().getByLabel("Filter the rules")).hasValue("verdict reject ");
    bench.press("Enter");
    assertThat(page().locator("[data-grid]")).isFocused();
    assertThat(bench.rule("h01")).hasCount(0);
  }

  @Test
  void theLibraryFindsObjectsByWhatTheyHold() {
    bench.button("Library").press("Enter");
    Locator search = page().getByLabel("Search the library");
    Locator addresses =
        page().getByRole(AriaRole.REGION, new Page.GetByRoleOptions().setName("Addresses"));
    search.fill("10.4.3.7");
    assertThat(addresses).containsText("Kiosks");
    assertThat(addresses).not().containsText("Name servers");
    search.fill("tcp/443");
    assertThat(page().getByText("Secure web", new Page.GetByTextOptions().setExact(true)))
        .isVisible();
    assertThat(addresses).not().containsText("Kiosks");
  }

  @Test
  void aShadowedRuleIsPlacedWhereItDecides() {
    bench.focus("h12");
    bench.press("g");
    Locator dialog = bench.dialog();
    assertThat(dialog).containsText("Where it decides everything that it matches: number 10");
    assertThat(dialog).containsText("drop becomes allow");
    bench.press("ArrowDown");
    assertThat(dialog.getByLabel("Right above the rule that takes it")).isChecked();
    bench.press("Enter");
    assertThat(dialog).hasCount(0);
    assertThat(bench.rule("h12")).hasAttribute("aria-rowindex", "12");
    assertThat(bench.rule("h12")).not().containsText("shadowed");
    bench.press("Control+z");
    assertThat(bench.rule("h12")).hasAttribute("aria-rowindex", "13");
  }

  @Test
  void aRuleMovesAsFarAsNoVerdictChanges() {
    bench.focus("h47");
    bench.press("[");
    assertThat(bench.rule("h47")).hasAttribute("aria-rowindex", "3");
    bench.press("[");
    assertThat(page().getByText("It cannot pass rule 2 quietly")).isVisible();
    bench.press("Control+z");
    assertThat(bench.rule("h47")).hasAttribute("aria-rowindex", "7");
  }

  @Test
  void twoRulesStandSideBySide() {
    bench.focus("h11");
    bench.press("Shift+ArrowDown");
    bench.press("=");
    Locator dialog = bench.dialog();
    assertThat(dialog).containsText("12 Terminals: no other hosts in booking (drop) stands above");
    Locator both =
        dialog.getByRole(AriaRole.REGION, new Locator.GetByRoleOptions().setName("Both match"));
    assertThat(both).containsText("service tcp/443");
    assertThat(both).containsText("decided by 12");
    checkAxe("side by side");
    both.getByText("Probe").first().press("Enter");
    assertThat(dialog).hasCount(0);
    assertThat(bench.probeAnswer()).containsText("drop");
  }

  @Test
  void manyRulesChangeInOneStepAndAChipIsReplacedInThem() {
    bench.focus("h11");
    bench.press("Shift+ArrowDown");
    bench.press("Shift+ArrowDown");
    bench.press("Shift+ArrowUp"); // the range shrinks
    assertThat(bench.rule("h13")).hasAttribute("aria-selected", "false");
    bench.press("v");
    bench.press("Enter");
    page()
        .getByRole(AriaRole.MENUITEM, new Page.GetByRoleOptions().setName("caution"))
        .press("Enter");
    for (String id : List.of("h11", "h12")) {
      assertThat(bench.rule(id)).containsText("caution");
    }
    bench.press("Control+z");
    for (String id : List.of("h11", "h12")) {
      assertThat(bench.rule(id)).not().containsText("caution");
    }
    bench.press("r");
    Locator dialog = bench.dialog();
    assertThat(dialog).containsText("Chips of 2 selected rules");
    dialog
        .getByLabel("Chip")
        .selectOption(new SelectOption().setLabel("terminals: source zone in 2 rules"));
    dialog.getByLabel("Replace it by").fill("guest-wifi");
    assertThat(dialog).containsText("another verdict");
    dialog.getByLabel("Replace it by").press("Enter");
    assertThat(dialog).hasCount(0);
    for (String id : List.of("h11", "h12")) {
      assertThat(bench.rule(id)).containsText("guest-wifi");
    }
    bench.press("Control+z");
    assertThat(bench.rule("h11")).containsText("terminals");
    bench.press("Control+a");
    assertThat(page().getByText("61 rules selected.")).isVisible();
  }
}
