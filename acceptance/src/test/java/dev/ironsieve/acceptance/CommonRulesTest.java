package dev.ironsieve.acceptance;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;

/** Rules that are written once and stand around those of other rulebases. */
class CommonRulesTest extends OnTheBench {
  private static final String COMMON = "Rules for both piers";

  private void command(String words) {
    bench.press("Control+k");
    bench.dialog().waitFor();
    bench.type(words);
    bench.press("Enter");
  }

  private void createCommon() {
    command("Import…");
    page().getByLabel("Name", new Page.GetByLabelOptions().setExact(true)).fill(COMMON);
    bench.dialog().getByLabel("Common rules").check();
    bench.button("Create").press("Enter");
    assertThat(page().getByText("No rulebase is below this one yet")).isVisible();
  }

  /** Adds a rule for any connection to UDP port 69 to a section. */
  private void addRule(String section, String name) {
    page()
        .getByLabel("Actions on section " + section, new Page.GetByLabelOptions().setExact(true))
        .focus();
    bench.press("Enter");
    page()
        .getByRole(
            AriaRole.MENUITEM, new Page.GetByRoleOptions().setName("Add a rule").setExact(true))
        .press("Enter");
    Locator editor = page().locator("input[aria-label^='Name of rule']");
    editor.fill(name);
    editor.press("Enter");
    bench.press("Escape");
    bench.press("s");
    bench.type("udp/69");
    bench.press("Enter");
    bench.press("Escape");
    assertThat(rule(name)).containsText("udp/69");
  }

  private Locator rule(String name) {
    return page().locator("[data-rule]").filter(new Locator.FilterOptions().setHasText(name));
  }

  private void publish(int revision) {
    command("publish");
    Locator reason = page().getByLabel("Reason to override");
    Locator button = bench.button("Publish revision " + revision);
    button.waitFor();
    if (reason.isVisible()) {
      reason.fill("A test");
    }
    button.press("Enter");
    assertThat(page().getByText("draft on revision " + revision + ", 0 changes")).isVisible();
  }

  @Test
  void rulesAreWrittenOnceLockedBelowAndPublishedToAllOfThem() {
    String local = page().url();
    createCommon();
    addRule("Head rules", "No boot servers");
    String common = page().url();
    publish(2);

    page().navigate(local);
    bench.rule("h01").waitFor();
    command("Common rules…");
    bench.dialog().getByLabel(Pattern.compile(COMMON)).check();
    bench.button("Save").press("Enter");
    assertThat(rule("No boot servers")).hasAttribute("aria-rowindex", "1");
    assertThat(bench.rule("h01")).hasAttribute("aria-rowindex", "2");
    rule("No boot servers").click();
    bench.press("Delete");
    assertThat(page().getByText("This rule is from " + COMMON + ". Edit it there.")).isVisible();
    assertThat(rule("No boot servers")).isVisible();
    checkAxe("rules below common ones");
    publish(2);

    page().navigate(common);
    assertThat(page().getByText("This rulebase reaches 1 rulebase and 0 gateways")).isVisible();
    addRule("Tail rules", "No boot servers again");
    assertThat(rule("No boot servers again")).containsText("decides nothing in 1 of 1");
    checkAxe("common rules");
    command("publish");
    String below = "rulesAreWrittenOnceLockedBelowAndPublishedToAllOfThem";
    assertThat(bench.cause(below)).containsText("No boot servers again");
    checkAxe("publish of common rules");
    publish(3);

    page().navigate(local);
    bench.rule("h01").waitFor();
    assertThat(page().getByText("draft on revision 3, 0 changes")).isVisible();
    Locator last = rule("No boot servers again");
    page().locator("[data-grid]").press("End");
    assertThat(last).containsText("redundant");
  }
}
