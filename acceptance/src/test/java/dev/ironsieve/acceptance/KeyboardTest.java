package dev.ironsieve.acceptance;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Route;
import com.microsoft.playwright.options.AriaRole;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;

/** Where keys go: with a filter on, after a menu, on a button inside a rule, and while waiting. */
class KeyboardTest extends OnTheBench {
  private void filter(String words) {
    bench.press("/");
    bench.type(words);
    bench.press("Enter");
  }

  private Locator named(String name) {
    return page().locator("[data-rule]").filter(new Locator.FilterOptions().setHasText(name));
  }

  private Locator announced(String words) {
    return page()
        .locator("[role=status]")
        .filter(new Locator.FilterOptions().setHasText(Pattern.compile(words)));
  }

  private Locator section(String name) {
    return page()
        .getByRole(
            AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Section " + name).setExact(true));
  }

  @Test
  void aNewRuleIsShownUnderAFilterAndWhatIsTypedIsItsName() {
    filter("shadowed");
    assertThat(page().locator("[data-rule]")).hasCount(5);
    bench.focus("h12");
    bench.press("Control+Enter");
    bench.type("Typed at once");
    bench.press("Enter");
    assertThat(named("Typed at once")).isVisible();
    assertThat(named("Typed at once")).containsText("unfinished");
    assertThat(named("Typed at once")).hasAttribute("aria-rowindex", "14");
    assertThat(page().locator("[data-rule]")).hasCount(6);
  }

  @Test
  void aMoveUnderAFilterSaysWhatItPassesAndTheFocusStaysWithTheRule() {
    filter("shadowed");
    bench.focus("h12");
    bench.press("Alt+ArrowDown");
    assertThat(announced("^Rule moved to \\d+ past \\d+ rules\\.$")).hasCount(1);
    bench.press("/");
    bench.press("Escape");
    assertThat(page().locator("[data-rule]").nth(6)).isVisible();
    assertThat(bench.rule("h12")).hasAttribute("aria-selected", "true");
    assertThat(bench.rule("h12")).isInViewport();
    bench.press("Control+/");
    assertThat(bench.rule("h12")).containsText("disabled");
  }

  @Test
  void foldedSectionsStayFoldedAfterAReload() {
    String section = page().locator("[aria-label^='Section ']").first().getAttribute("aria-label");
    Locator toggle = section(section.substring("Section ".length()));
    toggle.focus();
    bench.press("Enter");
    assertThat(toggle).hasAttribute("aria-expanded", "false");
    assertThat(bench.rule("h01")).hasCount(0);
    assertThat(page().locator("input[aria-label^='Name of rule']")).hasCount(0);
    page().reload();
    assertThat(toggle).hasAttribute("aria-expanded", "false");
    assertThat(bench.rule("h01")).hasCount(0);
    toggle.focus();
    bench.press("Space");
    assertThat(bench.rule("h01")).isVisible();
  }

  @Test
  void aSectionIsRenamedFromItsMenu() {
    page().locator("[aria-label^='Actions on section']").first().focus();
    bench.press("Enter");
    assertThat(page().getByRole(AriaRole.MENUITEM).first()).isFocused();
    bench.press("ArrowDown");
    assertThat(page().getByRole(AriaRole.MENUITEM).nth(1)).isFocused();
    bench.press("Enter");
    assertThat(page().getByLabel("Name of the section")).isFocused();
    bench.press("Control+a");
    bench.type("Piers");
    bench.press("Enter");
    assertThat(section("Piers")).isVisible();
    assertThat(bench.probeBox()).hasValue("");
  }

  @Test
  void aRuleInsertedFromTheMenuIsNamedAtOnce() {
    bench.focus("h12");
    bench.press("m");
    bench.press("Enter");
    page()
        .getByRole(
            AriaRole.MENUITEM,
            new Page.GetByRoleOptions().setName(Pattern.compile("^Insert below")))
        .click();
    assertThat(page().getByLabel("Name of rule 14")).isFocused();
    bench.type("From the menu");
    bench.press("Enter");
    assertThat(named("From the menu")).hasAttribute("aria-rowindex", "14");
  }

  @Test
  void keysOnAButtonInsideARuleAreTheButtonsOwn() {
    String addresses =
        IntStream.range(0, 40)
            .mapToObj(i -> "\"10.9." + i + ".0/25\"")
            .collect(Collectors.joining(","));
    bench.readIn(
        "many chips",
        """
        {"ironSieve": 1, "name": "any", "zones": [{"name": "inside"}],
         "sections": [{"name": "s", "rules": [{"id": "many", "name": "Many", "verdict": "allow",
           "fromAddresses": {"items": [%s]}}]}]}
        """
            .formatted(addresses),
        "many");
    bench.focus("many");
    Locator more = bench.rule("many").locator("[aria-label^='Show ']").first();
    more.focus();
    bench.press("Enter");
    assertThat(bench.rule("many")).containsText("10.9.39.0/25");
    assertThat(page().locator("input[aria-label^='Name of rule']")).hasCount(0);
    assertThat(page().locator("[data-rule]")).hasCount(1);
    // What is no key of a button still is one of the rule.
    bench.rule("many").getByText("fewer").focus();
    bench.press("Control+Enter");
    assertThat(page().locator("input[aria-label^='Name of rule']")).isFocused();
    assertThat(page().locator("[data-rule]")).hasCount(2);
  }

  @Test
  void backReturnsToTheRuleThatALeapBeganAt() {
    bench.focus("h02");
    assertThat(page()).hasURL(Pattern.compile("rule=h02"));
    page().locator("[data-count=shadowed]").click();
    assertThat(bench.rule("h12")).hasAttribute("aria-selected", "true");
    assertThat(page()).hasURL(Pattern.compile("rule=h12"));
    page().goBack();
    assertThat(bench.rule("h02")).hasAttribute("aria-selected", "true");
    assertThat(page()).hasURL(Pattern.compile("rule=h02"));
    page().goForward();
    assertThat(bench.rule("h12")).hasAttribute("aria-selected", "true");
  }

  @Test
  void anEditThatTheServerIsTooBusyForWaitsAndIsNotLost() {
    bench.focus("h13");
    page()
        .route(
            "**/api/rulebases/*/draft",
            route -> {
              if (!route.request().method().equals("PATCH")) {
                route.resume();
                return;
              }
              route.fulfill(
                  new Route.FulfillOptions()
                      .setStatus(503)
                      .setContentType("application/json")
                      .setBody(
                          "{\"title\": \"Not available now\", \"status\": 503,"
                              + " \"detail\": \"The draft is being opened.\"}"));
            });
    bench.press("Control+/");
    assertThat(page().getByRole(AriaRole.ALERT)).containsText("1 change waits");
    page().unroute("**/api/rulebases/*/draft");
    assertThat(bench.rule("h13")).containsText("disabled");
    browser.complaints().clear(); // the browser logs the refused requests
  }

  @Test
  void aQuestionOverASecondShowsItsProgressAndCanBeCancelled() {
    List<Route> held = new ArrayList<>();
    page().route("**/api/rulebases/*/draft/probe", held::add);
    page()
        .route(
            "**/api/questions/*",
            route ->
                route.fulfill(
                    new Route.FulfillOptions()
                        .setContentType("application/json")
                        .setBody(
                            "{\"running\": false, \"seconds\": 3, \"deadline\": 30, \"waiting\": 2}")));
    bench.probe("tcp/443");
    Locator progress = page().locator("[data-question]");
    assertThat(progress)
        .containsText("Probe: 3 of at most 30 s, 2 questions wait for a free thread");
    assertThat(held).isNotEmpty();
    page().unroute("**/api/rulebases/*/draft/probe");
    progress.getByText("Cancel").click();
    assertThat(progress).hasCount(0);
    assertThat(page().getByText("Cancelled.")).isVisible();
    bench.probe("tcp/80");
    assertThat(bench.probeAnswer()).containsText("drop");
  }
}
