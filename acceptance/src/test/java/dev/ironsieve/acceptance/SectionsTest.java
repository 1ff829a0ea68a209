package dev.ironsieve.acceptance;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Mouse;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.BoundingBox;
import java.util.List;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;

/** Sections, exceptions, notes, and several selected rules. */
class SectionsTest extends OnTheBench {
  private Locator section(String name) {
    return page()
        .getByRole(
            AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Section " + name).setExact(true));
  }

  /** Chooses an action from the menu of a section, by keys. */
  private void choose(String section, String action) {
    page()
        .getByLabel("Actions on section " + section, new Page.GetByLabelOptions().setExact(true))
        .focus();
    bench.press("Enter");
    page()
        .getByRole(AriaRole.MENUITEM, new Page.GetByRoleOptions().setName(action).setExact(true))
        .press("Enter");
  }

  private String firstSection() {
    String label = page().locator("[aria-label^='Section ']").first().getAttribute("aria-label");
    return label.substring("Section ".length());
  }

  @Test
  void aSectionIsAddedFilledAndDeletedWithItsRules() {
    String first = firstSection();
    choose(first, "New section above");
    assertThat(section("New section")).isVisible();
    choose("New section", "Add a rule");
    assertThat(page().getByLabel("Name of rule 1")).isFocused();
    bench.type("Pilots");
    bench.press("Enter");
    Locator pilots = page().locator("[data-rule]").first();
    assertThat(pilots).containsText("Pilots");
    assertThat(pilots).hasAttribute("aria-rowindex", "1");

    choose("New section", "Delete with its rule");
    assertThat(section("New section")).hasCount(0);
    assertThat(page().locator("[data-rule]").first()).not().containsText("Pilots");
    page().getByLabel("Rules", new Page.GetByLabelOptions().setExact(true)).focus();
    bench.press("Control+z");
    assertThat(page().locator("[data-rule]").first()).containsText("Pilots");
    bench.press("Control+Shift+z");
    assertThat(section("New section")).hasCount(0);
    page().reload();
    assertThat(section(first)).isVisible();
    assertThat(section("New section")).hasCount(0);
  }

  @Test
  void aSectionMovesWholeByKeyAndByDragging() {
    String first = firstSection();
    bench.focus("h01");
    bench.press("Alt+PageDown");
    assertThat(page().getByText("Section moved.")).isVisible();
    String above = firstSection();
    org.assertj.core.api.Assertions.assertThat(above).isNotEqualTo(first);
    bench.press("Alt+PageUp");
    assertThat(bench.rule("h01")).hasAttribute("aria-rowindex", "1");
    page().getByText(first, new Page.GetByTextOptions().setExact(true)).hover();
    page().mouse().down();
    BoundingBox target =
        page().getByText(above, new Page.GetByTextOptions().setExact(true)).boundingBox();
    Mouse.MoveOptions slowly = new Mouse.MoveOptions().setSteps(10);
    page().mouse().move(target.x + 30, target.y + target.height / 2, slowly);
    page().mouse().move(target.x + 32, target.y + target.height / 2 + 2, slowly);
    page().mouse().up();
    assertThat(bench.rule("h01")).not().hasAttribute("aria-rowindex", "1");
    org.assertj.core.api.Assertions.assertThat(firstSection()).isEqualTo(above);
  }

  @Test
  void aNameBehindNotIsAnException() {
    bench.focus("h05");
    bench.press("t");
    bench.type("not booking");
    bench.press("Enter");
    bench.press("Escape");
    Locator destination = bench.rule("h05").locator("[data-part=to]");
    assertThat(destination).containsText(Pattern.compile("not\\s*booking"));
    bench.probe("from 10.1.0.9 in offices to 192.0.2.10 in booking icmp/8");
    assertThat(bench.probeAnswer()).containsText("drop");
    bench.focus("h05");
    bench.press("Control+z");
    assertThat(destination).not().containsText("booking");
    assertThat(bench.probeAnswer()).containsText("allow");
  }

  @Test
  void aNoteIsKeptAndUndone() {
    bench.focus("h12");
    Locator note = page().getByLabel("Note", new Page.GetByLabelOptions().setExact(true));
    String before = note.inputValue();
    note.fill("Asked for by the harbour master\nuntil the new pier opens");
    note.press("Control+Enter");
    page().getByText("all saved").waitFor();
    page().reload();
    bench.focus("h12");
    assertThat(note).hasValue("Asked for by the harbour master\nuntil the new pier opens");
    bench.focus("h13");
    assertThat(note).not().hasValue("Asked for by the harbour master\nuntil the new pier opens");
    bench.focus("h12");
    bench.press("Control+z");
    assertThat(note).hasValue(before);
  }

  @Test
  void rulesAreCopiedAsTextAndPastedBelowAnother() {
    page().context().grantPermissions(List.of("clipboard-read", "clipboard-write"));
    bench.focus("h12");
    bench.press("Shift+ArrowDown");
    bench.press("Control+c");
    assertThat(page().getByText("2 rules copied as text.")).isVisible();
    bench.focus("h14");
    bench.press("Control+v");
    assertThat(page().getByText("2 rules pasted.")).isVisible();
    Locator pasted =
        page()
            .locator("[data-rule][aria-selected=true]")
            .filter(new Locator.FilterOptions().setHasText("Kiosk update service"));
    assertThat(pasted).hasAttribute("aria-rowindex", "16");
    page().evaluate("navigator.clipboard.writeText('allow \"Broken\" log never')");
    bench.press("Control+v");
    assertThat(
            page()
                .getByText(
                    "Not pasted: line 1, character 20: expected start, end or both, found \"never\"."))
        .isVisible();
    bench.press("Control+z");
    assertThat(
            page()
                .locator("[data-rule]")
                .filter(new Locator.FilterOptions().setHasText("Kiosk update service")))
        .hasCount(1);
  }

  @Test
  void severalSelectedRulesAreDisabledMovedAndDeletedTogether() {
    List<String> selected = List.of("h12", "h13", "h14");
    bench.focus("h12");
    bench.press("Shift+ArrowDown");
    bench.press("Shift+ArrowDown");
    for (String id : selected) {
      assertThat(bench.rule(id)).hasAttribute("aria-selected", "true");
    }
    bench.press("Control+/");
    for (String id : selected) {
      assertThat(bench.rule(id)).containsText("disabled");
    }
    bench.press("Alt+Home");
    assertThat(bench.rule("h12")).hasAttribute("aria-rowindex", "1");
    assertThat(bench.rule("h14")).hasAttribute("aria-rowindex", "3");
    bench.press("Delete");
    for (String id : selected) {
      assertThat(bench.rule(id)).hasCount(0);
    }
    bench.press("Control+z");
    assertThat(bench.rule("h14")).hasAttribute("aria-rowindex", "3");
    bench.press("Control+z");
    bench.press("Control+z");
    for (String id : selected) {
      assertThat(bench.rule(id)).not().containsText("disabled");
    }
    assertThat(bench.rule("h12")).hasAttribute("aria-rowindex", "13");
  }
}
