package dev.ironsieve.acceptance;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.BoundingBox;
import com.microsoft.playwright.options.FilePayload;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;

/** What a person does on the bench, in a real browser on a real server and database. */
class BenchTest extends OnTheBench {
  private static final Page.GetByLabelOptions EXACTLY = new Page.GetByLabelOptions().setExact(true);

  @Test
  void aRuleForPeopleShowsWhomAndAProbeMayNameThem() {
    String people =
        """
        {"ironSieve": 1, "name": "People",
         "vocabularies": [
           {"coordinate": "person", "edition": "1", "values": ["Maya Lind", "nobody"]},
           {"coordinate": "application", "edition": "1",
            "values": ["Gullwire: post", "Gullwire: view"],
            "sets": [{"name": "Gullwire", "members": ["Gullwire: post", "Gullwire: view"]}]}],
         "sections": [{"name": "s", "rules": [
           {"id": "chat", "name": "Maya chats", "verdict": "allow",
            "terms": {"person": {"items": ["Maya Lind"]},
                      "application": {"items": ["Gullwire"]}}},
           {"id": "posts", "name": "no posts", "verdict": "reject",
            "terms": {"person": {"items": ["Maya Lind"]},
                      "application": {"items": ["Gullwire: post"]}}}]}]}
        """;
    bench.readIn("people", people, "posts");
    assertThat(bench.rule("posts")).containsText("shadowed by 1");
    assertThat(bench.rule("posts")).containsText("Maya Lind");
    bench.focus("posts");
    bench.button("Probe this witness").click();
    assertThat(bench.probeAnswer()).containsText("rule 1");
    bench.probe("from 10.0.0.1 to 10.0.0.2 tcp/443 person nobody application Gullwire: post");
    assertThat(bench.probeAnswer()).containsText("default rule");
    assertThat(page().getByText("no match: person").first()).isVisible();
  }

  @Test
  void aRuleIsInsertedAboveTypedWithChipsAndUndone() {
    bench.focus("h09");
    bench.press("Control+Shift+Enter");
    Locator name = page().getByLabel(Pattern.compile("Name of rule 10"));
    assertThat(name).isFocused();
    bench.type("Piers to booking");
    bench.press("Tab");
    bench.type("term");
    bench.press("Enter");
    bench.type("10.4.64.0/20");
    bench.press("Enter");
    bench.press("Tab");
    bench.type("booking");
    bench.press("Enter");
    bench.press("Tab");
    bench.type("tcp/8444");
    bench.press("Enter");
    bench.press("Escape");
    Locator strip = page().locator("[role=row][aria-rowindex='10']");
    assertThat(strip).containsText("Piers to booking");
    assertThat(strip).containsText("terminals");
    assertThat(strip).containsText("10.4.64.0/20");
    assertThat(strip).containsText("tcp/8444");
    assertThat(bench.rule("h09")).hasAttribute("aria-rowindex", "11");
    for (int i = 0; i < 6; i++) {
      bench.press("Control+z");
      page().waitForTimeout(150);
    }
    assertThat(bench.rule("h09")).hasAttribute("aria-rowindex", "10");
    assertThat(page().getByText("Piers to booking")).hasCount(0);
  }

  @Test
  void whatTheServerRefusesIsExplainedWhereItWasTypedAndNotLost() {
    bench.focus("h09");
    bench.press("f");
    bench.type("10.4.2.9/16");
    bench.press("Enter");
    assertThat(page().getByRole(AriaRole.ALERT)).containsText("as in 10.4.0.0/16");
    Locator box =
        page()
            .getByRole(
                AriaRole.COMBOBOX, new Page.GetByRoleOptions().setName("\"from\" of rule 10"));
    assertThat(box).hasValue("10.4.2.9/16");
    box.fill("nonsense");
    bench.press("Enter");
    assertThat(page().getByRole(AriaRole.ALERT)).containsText("Nothing is called \"nonsense\"");
  }

  @Test
  void peopleAndApplicationsAreCompletedIntoARule() {
    bench.open("h06");
    bench.press("f");
    bench.type("help de");
    page().getByText("title is help desk clerk").waitFor();
    page().getByText("person · 9:").first().waitFor();
    bench.press("Enter");
    assertThat(bench.rule("h06")).containsText("help desk");
    assertThat(bench.rule("h06")).not().containsText("title is");
    bench.press("Escape");
    bench.press("s");
    bench.type("gullwire: p");
    bench.options().first().waitFor();
    bench.press("Enter");
    assertThat(bench.rule("h06")).containsText("Gullwire: post");
    bench.press("Escape");
  }

  @Test
  void aRuleBecomesShadowedWhileTheRuleAboveItIsWidened() {
    bench.open("h28");
    assertThat(bench.rule("h28")).not().containsText("shadowed");
    bench.open("h21");
    bench.press("s");
    bench.press("Backspace");
    bench.press("Escape");
    bench.press("t");
    bench.press("Backspace");
    bench.press("Escape");
    bench.open("h28");
    assertThat(bench.rule("h28")).containsText("shadowed by 35");
    assertThat(page().locator("[data-finding=shadowed]"))
        .containsText("Rule 35 drops this connection before rule 42 can allow it.");
    assertThat(page().locator("[data-count=shadowed]")).not().hasText("5 shadowed");
    bench.press("Control+z");
    bench.press("Control+z");
    assertThat(bench.rule("h28")).not().containsText("shadowed");
    assertThat(page().locator("[data-count=shadowed]")).hasText("5 shadowed");
  }

  @Test
  void aJointCoverIsTakenApartByDraggingTheRuleUp() {
    assertThat(bench.rule("h12")).containsText("shadowed by 10 and 12");
    bench.focus("h12");
    drag(bench.rule("h12"), bench.rule("h11"));
    assertThat(bench.rule("h12")).hasAttribute("aria-rowindex", "12");
    assertThat(bench.rule("h11")).hasAttribute("aria-rowindex", "13");
    assertThat(bench.rule("h12")).not().containsText("shadowed");
    bench.press("Control+z");
    assertThat(bench.rule("h12")).hasAttribute("aria-rowindex", "13");
    assertThat(bench.rule("h12")).containsText("shadowed by 10 and 12");
    bench.press("Control+Shift+Z");
    assertThat(bench.rule("h12")).hasAttribute("aria-rowindex", "12");
  }

  /** Drags a strip by its number to the upper half of another. */
  private void drag(Locator strip, Locator onto) {
    strip.scrollIntoViewIfNeeded();
    BoundingBox from = strip.boundingBox();
    BoundingBox to = onto.boundingBox();
    page().mouse().move(from.x + 40, from.y + 20);
    page().mouse().down();
    page().mouse().move(from.x + 44, from.y + 10);
    page().mouse().move(to.x + 40, to.y + 12);
    page().mouse().move(to.x + 40, to.y + 8);
    page().mouse().up();
  }

  @Test
  void rulesAreMovedClonedDisabledAndDeletedByKeyAndAnnounced() {
    bench.focus("h07");
    bench.press("Alt+ArrowDown");
    assertThat(bench.rule("h07")).hasAttribute("aria-rowindex", "9");
    assertThat(
            page().locator("[role=status]").filter(new Locator.FilterOptions().setHasText("moved")))
        .hasText("Rule moved to 9.");
    bench.press("Control+/");
    assertThat(bench.rule("h07")).containsText("disabled");
    bench.press("Control+/");
    assertThat(bench.rule("h07")).not().containsText("disabled");
    bench.focus("h10");
    bench.press("Alt+Shift+ArrowDown");
    Locator copy = page().locator("[role=row][aria-rowindex='12']");
    assertThat(copy).containsText("Gate readers to booking");
    assertThat(copy).containsText("redundant: 11 already does this");
    bench.press("Delete");
    assertThat(copy).not().containsText("Gate readers to booking");
    bench.focus("h07");
    bench.press("Alt+Home");
    assertThat(bench.rule("h07")).hasAttribute("aria-rowindex", "1");
    bench.press("v");
    bench.press("Enter");
    page()
        .getByRole(
            AriaRole.MENUITEM, new Page.GetByRoleOptions().setName(Pattern.compile("^reject")))
        .click();
    assertThat(bench.rule("h07")).containsText("reject");
    // The keys go on working when the rule that was clicked has scrolled out of the page.
    bench.press("End");
    assertThat(bench.rule("h43")).hasAttribute("aria-selected", "true");
    bench.press("Control+/");
    assertThat(bench.rule("h43")).containsText("disabled");
  }

  @Test
  void theProbeFallsToTheRuleThatCatchesItAndMarksWhatTurnedItAway() {
    bench.probe("from 10.4.2.9 to 192.0.2.99 tcp/443");
    assertThat(bench.probeAnswer()).containsText("drop by rule 12");
    assertThat(bench.probeAnswer())
        .containsText("from 10.4.2.9 in terminals to 192.0.2.99 in booking");
    assertThat(bench.probeAnswer()).containsText("11 rules above did not match");
    Locator blocked = bench.rule("h09").locator("[data-blocked]");
    assertThat(blocked).hasCount(1);
    assertThat(blocked).containsText("Booking all");
    bench.focus("h11");
    bench.press("Control+/");
    assertThat(bench.probeAnswer()).containsText("allow by rule 13");
    bench.probe("from 10.4.2.9 to 192.0.2.99 tcp/99999");
    assertThat(page().getByRole(AriaRole.ALERT)).containsText("expected a port from 0 to 65535");
  }

  @Test
  void theWitnessOfEveryFindingCanBeProbed() {
    bench.open("h26");
    assertThat(page().locator("[data-witness]")).containsText("tcp/9100");
    bench.press("w");
    assertThat(bench.probeAnswer()).containsText("drop by rule 31");
  }

  @Test
  void everythingIsThereAfterAReloadAndARestartOfTheServer() {
    bench.open("h14");
    bench.press("Enter");
    bench.type("Booking mails receipts");
    bench.press("Enter");
    assertThat(bench.rule("h14")).containsText("Booking mails receipts");
    bench.press("Control+/");
    assertThat(bench.rule("h14")).containsText("disabled");
    bench.probe("from 10.4.2.9 to 192.0.2.99 tcp/443");
    assertThat(page()).hasURL(Pattern.compile("rule=h14.*probe=from"));
    server.stop();
    try {
      bench.focus("h13");
      bench.press("Control+/");
      assertThat(page().getByRole(AriaRole.ALERT)).containsText("1 change waits");
    } finally {
      server.start();
    }
    assertThat(bench.rule("h13")).containsText("disabled");
    page().reload();
    assertThat(bench.rule("h14")).containsText("Booking mails receipts");
    assertThat(bench.rule("h14")).containsText("disabled");
    assertThat(bench.rule("h13")).containsText("disabled");
    assertThat(bench.probeAnswer()).containsText("drop by rule 12");
    bench.focus("h14");
    bench.press("Control+z");
    assertThat(bench.rule("h13")).not().containsText("disabled");
    // While the server was away the browser logged its own failed requests, which are no faults.
    browser.complaints().clear();
  }

  @Test
  void twoPeopleSeeEachOthersChangesAndAConflictOverwritesNobody() {
    String address = page().url().replaceAll("\\?.*", "");
    Page other = browser.signedIn(server.address(), "tomas.wren");
    other.navigate(address);
    BenchPage tomas = new BenchPage(other);
    tomas.rule("h01").waitFor();
    assertThat(page().locator("[data-presence]")).containsText("Tomas Wren is here too");

    tomas.open("h20");
    tomas.press("Enter");
    bench.open("h20");
    bench.press("Enter");
    bench.type("Ruth's name");
    bench.press("Enter");
    assertThat(bench.rule("h20")).containsText("Ruth's name");
    tomas.type("Tomas's name");
    tomas.press("Enter");
    Locator dialog = tomas.dialog();
    assertThat(dialog)
        .containsText("Ruth Okell changed the rule \"Ruth's name\" since you saw it.");
    assertThat(dialog).containsText("Tomas's name");
    assertThat(bench.rule("h20")).containsText("Ruth's name");
    tomas.button("Overwrite with mine").click();
    assertThat(tomas.rule("h20")).containsText("Tomas's name");
    assertThat(bench.rule("h20")).containsText("Tomas's name");
    other.context().close();
  }

  @Test
  void aViewerSeesEverythingAndChangesNothing() {
    String address = page().url().replaceAll("\\?.*", "");
    Page other = browser.signedIn(server.address(), "ines.calder");
    other.navigate(address);
    BenchPage ines = new BenchPage(other);
    ines.focus("h12");
    assertThat(ines.rule("h12")).containsText("shadowed by 10 and 12");
    ines.press("Control+/");
    ines.press("Delete");
    ines.press("Enter");
    assertThat(other.locator("input[aria-label^='Name of rule']")).hasCount(0);
    ines.press("w");
    assertThat(ines.probeAnswer()).containsText("drop by rule 12");
    assertThat(bench.rule("h12")).isVisible();
    other.context().close();
  }

  @Test
  void theFilterAndThePaletteFindRules() {
    bench.press("/");
    bench.type("shadowed");
    assertThat(page().locator("[data-rule]")).hasCount(5);
    assertThat(page()).hasURL(Pattern.compile("q=shadowed"));
    bench.press("Escape");
    assertThat(page().locator("[data-rule]").nth(5)).isVisible();
    bench.press("Control+k");
    bench.dialog().waitFor();
    bench.type("engine tele");
    bench.press("Enter");
    assertThat(bench.rule("h30")).hasAttribute("aria-selected", "true");
    bench.press("?");
    assertThat(bench.dialog()).containsText("Insert below");
    bench.press("Escape");
    assertThat(bench.dialog()).hasCount(0);
  }

  @Test
  void aFaultyDocumentIsExplainedAndAGoodOneIsImportedAndExported() throws IOException {
    String quay = Files.readString(Path.of("../formats/src/test/resources/quay-acls.json"));
    bench.press("Control+k");
    bench.dialog().waitFor();
    bench.type("import");
    bench.press("Enter");
    page().getByLabel("Name", EXACTLY).fill("Quay");
    page()
        .getByLabel("Document")
        .setInputFiles(file(quay.replace("\"port\": 443", "\"port\": 70000")));
    bench.button("Import").click();
    assertThat(page().getByRole(AriaRole.ALERT))
        .containsText(
            "destination-port.port: expected a whole number from 0 to 65535, found 70000");
    page().getByLabel("Document").setInputFiles(file(quay));
    bench.button("Import").click();
    assertThat(bench.dialog()).containsText("10.4.2.9/16 has bits set behind its length");
    bench.button("Open").click();
    assertThat(bench.rule("s1r4")).containsText("shadowed by 3");
    bench.press("Control+k");
    bench.dialog().waitFor();
    bench.type("export");
    bench.press("Enter");
    assertThat(bench.dialog()).containsText("RFC 8519 can express every rule.");
    var download = page().waitForDownload(() -> bench.button("RFC 8519").click());
    assertThat(download.suggestedFilename()).isEqualTo("quay-acls.json");
    assertThat(Files.readString(download.path())).contains("ietf-access-control-list:acls");
  }

  private static FilePayload file(String text) {
    return new FilePayload("acls.json", "application/json", text.getBytes(StandardCharsets.UTF_8));
  }

  @Test
  void noViewHasABarrierThatAxeKnows() {
    bench.focus("h12");
    bench.press("w");
    assertThat(bench.probeAnswer()).containsText("rule 12");
    checkAxe("rules");
    bench.press("f");
    checkAxe("editing");
    bench.press("Escape");
    bench.button("Switch theme").click();
    checkAxe("rules, dark");
    bench.press("Control+k");
    bench.dialog().waitFor();
    checkAxe("commands");
    bench.press("Escape");
    bench.button("Library").click();
    page().getByText("Head office desks").first().waitFor();
    checkAxe("library");
    bench.button("Applications").click();
    page().getByLabel("Search applications").fill("gullwire");
    page().getByText("shows when sealed too").waitFor();
    checkAxe("applications");
    page().getByLabel("Search applications").fill("lanternreel");
    page().getByText("No films otherwise").waitFor();
    checkAxe("an application with rules");
    bench.button("What would 2026-12 change?").click();
    page().getByText("new, 1 gone").waitFor();
    checkAxe("an edition's effect");
    bench.press("Escape");
    bench.button("History").click();
    page().getByText("History of the draft").waitFor();
    checkAxe("history");
  }
}
