package dev.ironsieve.acceptance;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.FilePayload;
import dev.ironsieve.formats.capture.CaptureWriter;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.util.Base64;
import java.util.List;
import java.util.regex.Pattern;
import org.assertj.core.api.Assertions;
import org.junit.jupiter.api.Test;

/** What rules are made of: objects, people, applications. */
class LibraryTest extends OnTheBench {
  private static final Page.GetByLabelOptions EXACTLY = new Page.GetByLabelOptions().setExact(true);

  @Test
  void anEditionOfTheCatalogueIsSeenTakenAndTakenBack() {
    bench.button("Library").click();
    bench.button("Applications").click();
    assertThat(page().getByText("Edition 2026-11 is in this draft")).isVisible();
    page().getByLabel("Search applications").fill("category no such");
    assertThat(page().getByText("No application fits.")).isVisible();
    page().getByLabel("Search applications").fill("lanternreel");
    assertThat(page().getByRole(AriaRole.ARTICLE)).containsText("No films otherwise");
    bench.button("What would 2026-12 change?").click();
    assertThat(bench.dialog()).containsText("3 rules change their match");
    bench.button("Adopt 2026-12 in the draft").click();
    assertThat(page().getByText("Edition 2026-12 is in this draft")).isVisible();
    assertThat(page().getByRole(AriaRole.ARTICLE)).containsText("shop");
    page().keyboard().press("Escape");
    page().getByRole(AriaRole.LISTBOX).focus();
    bench.press("Control+z");
    assertThat(page().getByText("Edition 2026-11 is in this draft")).isVisible();
  }

  @Test
  void backUndoesWhatWasChosenAndLeavesTheView() {
    bench.button("Library").click();
    page().getByLabel("Search the library").fill("kiosk");
    assertThat(page()).hasURL(Pattern.compile("/library\\?q=kiosk$"));
    bench.button("Applications").click();
    page().getByLabel("Search applications").fill("l");
    Locator all = page().locator("[role=option]");
    all.nth(1).click();
    String shown = page().getByRole(AriaRole.ARTICLE).innerText();
    all.nth(3).click();
    assertThat(all.nth(3)).hasAttribute("aria-selected", "true");
    assertThat(page().getByRole(AriaRole.ARTICLE)).not().hasText(shown);
    page().goBack();
    assertThat(all.nth(1)).hasAttribute("aria-selected", "true");
    page().goBack();
    assertThat(all.nth(0)).hasAttribute("aria-selected", "true");
    assertThat(page().getByLabel("Search applications")).hasValue("l");
    page().goBack();
    assertThat(page().getByLabel("Search the library")).hasValue("kiosk");
    page().goForward();
    page().goForward();
    assertThat(all.nth(1)).hasAttribute("aria-selected", "true");
  }

  @Test
  void whatAnApplicationNeedsAndWhatDoesNotShowIsToldAndMended() {
    bench.open("h44");
    Locator panel = page().getByLabel("Rule in focus");
    assertThat(panel).containsText("Inkwharf needs Inkwharf sign-in, which no rule allows");
    bench.press("s");
    bench.type("Inkwharf sign");
    bench.options().first().waitFor();
    bench.press("Enter");
    bench.press("Escape");
    assertThat(panel).not().containsText("Inkwharf needs Inkwharf sign-in");
    assertThat(panel).containsText("Inkwharf needs Saltbox, which no rule allows");
    bench.open("p01");
    assertThat(panel)
        .containsText("Farhelm: view a screen and Farhelm: steer a screen: that shows");
    bench.press("m");
    bench.press("Enter");
    page().getByText("Open encrypted connections").click();
    assertThat(panel).not().containsText("that shows");
    assertThat(bench.rule("p01")).containsText("opened");
  }

  @Test
  void hostsAndTimesAreSaidInRulesNamedAndProbed() {
    bench.open("h45");
    bench.press("t");
    bench.type("*.quay.example");
    page().getByText("Create an object of it…").click();
    page().getByLabel("Name of the new object").fill("Quays");
    bench.button("Create and use").click();
    assertThat(bench.rule("h45")).containsText("Quays");
    page().keyboard().press("Escape");
    bench.open("h45");
    bench.press("s");
    bench.type("weekdays 06-22");
    bench.options().first().waitFor();
    bench.press("Enter");
    bench.press("Escape");
    assertThat(bench.rule("h45")).containsText("weekdays 06-22");
    bench.probe(
        "from 10.8.0.9 in vessels to 198.51.100.20 in internet tcp/443 device managed, has disk-lock"
            + " site www.quay.example file kind no file time mon 10:15");
    assertThat(page().getByText("if rules use dates, 2026-11-23T10:15").first()).isVisible();
    bench.probe(
        "from 10.8.0.9 in vessels to 198.51.100.20 in internet tcp/443 device managed, has disk-lock"
            + " site www.quay.example file kind no file time 2026-11-30T10:15");
    assertThat(bench.probeAnswer()).containsText("allow");
    assertThat(bench.probeAnswer()).containsText("rule 56");
    bench.button("Library").click();
    assertThat(page().getByLabel("Host lists")).containsText("*.quay.example");
    page()
        .getByLabel("Schedules")
        .getByRole(AriaRole.BUTTON)
        .filter(new Locator.FilterOptions().setHasText("New schedule"))
        .click();
    page().getByLabel("Name", EXACTLY).fill("Late ferries");
    page().getByLabel("Times", EXACTLY).fill("fri-sat 22-4");
    bench.button("Save").click();
    assertThat(bench.dialog()).containsText("weekdays 06:00-22:00");
    page().getByLabel("Times", EXACTLY).fill("fri-sat 22:00-04:00");
    bench.button("Save").click();
    assertThat(page().getByLabel("Schedules")).containsText("Late ferries");
    checkAxe("library with host lists and schedules");
  }

  @Test
  void devicesAreSaidByTheirStateAndACalendarBringsSchedules() {
    bench.open("h45");
    bench.press("f");
    bench.type("unmanaged, has disk-lock");
    bench.options().first().waitFor();
    bench.press("Enter");
    bench.press("Escape");
    assertThat(bench.rule("h45")).containsText("unmanaged, has disk-lock");
    bench.open("h45");
    bench.press("t");
    bench.type("documents");
    bench.press("Escape");
    bench.button("Library").click();
    assertThat(page().getByLabel("Device states")).containsText("fit for work");
    assertThat(page().getByLabel("Schedules")).containsText("Time zone: Europe/London");
    bench.button("Edit time zone").click();
    page().getByLabel("Time zone").fill("Harbour");
    bench.button("Save").click();
    assertThat(page().getByRole(AriaRole.ALERT)).containsText("such as Europe/Oslo");
    page().getByLabel("Time zone").fill("Europe/Lisbon");
    bench.button("Save").click();
    assertThat(page().getByLabel("Schedules")).containsText("Time zone: Europe/Lisbon");
    String event =
        "BEGIN:VEVENT\r\nUID:%1$s\r\nDTSTAMP:20260101T000000Z\r\nSUMMARY:%1$s\r\n"
            + "DTSTART:20261130T220000\r\nDURATION:PT6H\r\nRRULE:FREQ=WEEKLY\r\nEND:VEVENT\r\n";
    String calendar =
        "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:-//x//EN\r\n"
            + event.formatted("night ferry")
            + event.formatted("noon break")
            + "END:VCALENDAR\r\n";
    page()
        .getByLabel("Import a calendar…")
        .setInputFiles(
            new FilePayload("c.ics", "text/calendar", calendar.getBytes(StandardCharsets.UTF_8)));
    assertThat(bench.dialog()).containsText("2 schedules in the calendar");
    assertThat(bench.dialog()).containsText("Replaces noon break");
    checkAxe("schedules of a calendar");
    page().getByLabel("Take noon break").uncheck();
    bench.button("Save").click();
    assertThat(bench.dialog()).hasCount(0);
    assertThat(page().getByLabel("Schedules")).containsText("night ferry");
    assertThat(page().getByLabel("Schedules")).containsText("daily 12:00-14:00");
  }

  @Test
  void aProbeIsKeptAsACheckThatAnEditBreaks() {
    bench.probe("from 10.21.4.4 in guest-wifi to 192.0.2.10 in booking tcp/443");
    assertThat(bench.probeAnswer()).containsText("allow");
    bench.button("Save as check").click();
    page().getByLabel("Name of the check").fill("Guests can book");
    page().getByLabel("only by this rule").check();
    bench.button("Save").click();
    assertThat(page().locator("[data-checks]")).hasText("2 of 10 checks fail");
    bench.focus("h08");
    bench.press("Control+/");
    assertThat(page().locator("[data-checks]")).hasText("3 of 10 checks fail");
    page().locator("[data-checks]").click();
    Locator broken =
        page()
            .getByLabel("Checks", new Page.GetByLabelOptions().setExact(true))
            .getByRole(AriaRole.ROW)
            .filter(hasText("Guests can book"));
    assertThat(broken).containsText("expected allow, got drop");
    checkAxe("checks");
    page().getByLabel("failing only").check();
    assertThat(page().getByText("Passengers can book")).hasCount(0);
    broken.getByText("Guests can book").click();
    bench.press("w");
    assertThat(bench.probeAnswer()).containsText("drop");
    page().keyboard().press("Escape");
    bench.focus("h08");
    bench.press("Control+z");
    assertThat(page().locator("[data-checks]")).hasText("2 of 10 checks fail");
  }

  @Test
  void aFindingIsMendedAfterItsEffectWasSeen() {
    bench.open("h12");
    Locator panel = page().getByLabel("Rule in focus");
    panel
        .locator("[data-finding=shadowed]")
        .getByRole(AriaRole.BUTTON)
        .filter(hasText("Repairs…"))
        .click();
    assertThat(bench.dialog()).containsText("Delete \"Kiosk update service\"");
    assertThat(bench.dialog()).containsText("No connection gets another verdict.");
    assertThat(bench.dialog()).containsText("drop becomes allow");
    checkAxe("repairs of a finding");
    page().getByLabel("Move \"Kiosk update service\" above").getByText("Apply").click();
    assertThat(bench.dialog()).hasCount(0);
    assertThat(panel).not().containsText("shadowed");
    bench.press("Control+z");
    assertThat(panel).containsText("shadowed");
  }

  @Test
  void aRatePlanTellsWhatFloorsAddUpToWhileItIsEdited() {
    bench.button("Library").click();
    page()
        .getByLabel("Rate plans")
        .locator("li", new Locator.LocatorOptions().setHasText("Calls first"))
        .getByRole(AriaRole.BUTTON, new Locator.GetByRoleOptions().setName("Edit"))
        .click();
    assertThat(bench.dialog()).containsText("With this plan: Floors reserve 53520 kbit/s");
    assertThat(bench.dialog()).containsText("(107 %): over capacity");
    page().getByLabel("Source addresses at a time").fill("10");
    assertThat(bench.dialog()).containsText("of 50 Mbit/s (86 %)");
    page().getByLabel("Floor").fill("much");
    assertThat(bench.dialog()).not().containsText("With this");
    checkAxe("a rate plan that is edited");
    bench.button("Save").click();
    assertThat(bench.dialog()).containsText("Mbit/s");
    bench.button("Cancel").click();
  }

  @Test
  void theProbeTellsHowAConnectionUnfoldsAndCompletesNames() {
    bench.probeBox().fill("from 10.1.64.10 to 203.0.113.9 tcp/443 application lanternreel: v");
    bench.options().filter(hasText("Lanternreel: view")).click();
    assertThat(bench.probeAnswer()).containsText("reject");
    assertThat(page().getByLabel("Stages"))
        .containsText("At the first packet: let through until more is known");
    // Its feature shows only in opened connections, and the rule leaves them sealed.
    assertThat(page().getByLabel("Stages")).containsText("let through; the content stays sealed");
    assertThat(bench.probeAnswer())
        .containsText("Their device is managed, platform kelpos, has disk-lock");
  }

  @Test
  void objectsAreMadeRenamedAndKeptFromHarmInTheLibrary() {
    bench.button("Library").click();
    bench.button("Delete Kiosks").click();
    assertThat(bench.dialog()).containsText("3 rules would no longer use it");
    assertThat(bench.dialog()).containsText("Kiosk update service disabled, from −Kiosks");
    assertThat(bench.dialog()).containsText("allow becomes drop");
    bench.button("Delete").click();
    assertThat(bench.dialog()).hasCount(0);
    assertThat(bench.button("Delete Kiosks")).hasCount(0);
    page().keyboard().press("Control+z");
    assertThat(bench.button("Delete Kiosks")).isVisible();
    page()
        .locator("li", new Page.LocatorOptions().setHasText("Ticket kiosks"))
        .filter(new Locator.FilterOptions().setHasText("10.4.0.0/20"))
        .getByRole(AriaRole.BUTTON, new Locator.GetByRoleOptions().setName("Edit"))
        .click();
    page().getByLabel("Name", EXACTLY).fill("Ticket machines");
    bench.button("Save").click();
    assertThat(bench.dialog()).hasCount(0);
    bench.button("Rules").click();
    assertThat(bench.rule("h09")).containsText("Ticket machines");
    bench.button("History").click();
    assertThat(page().getByText("renamed address \"Kiosks\" to \"Ticket machines\"")).isVisible();
  }

  @Test
  void anEditionOfAFeedWaitsIsLookedAtLetThroughAndTaken() {
    bench.button("Library").click();
    bench.button("Feeds").click();
    bench.options().filter(hasText("Sea registry")).click();
    assertThat(page().getByText("2 of 14 lines could not be read.")).isVisible();
    assertThat(page().getByText("203.0.113.300/32,Norrey")).isVisible();
    assertThat(page().getByText("line 6: expected no address that is in another country"))
        .isVisible();
    checkAxe("feeds");
    bench.button("What would it change?").click();
    assertThat(bench.dialog()).containsText("1 rule changes its match");
    assertThat(bench.dialog()).containsText("Agencies abroad book for groups");
    assertThat(bench.dialog()).containsText("−from 203.0.113.64/26");
    assertThat(bench.dialog()).containsText("allow becomes drop");
    assertThat(bench.dialog()).not().containsText("Adopt ");
    bench.dialog().getByText(Pattern.compile("^Keep ")).click();
    bench.button("Approve").click();
    assertThat(page().getByText("approved by Ruth Okell")).isVisible();
    bench.button("What would it change?").click();
    bench.dialog().getByText("Adopt ").click();
    assertThat(bench.dialog()).hasCount(0);
    assertThat(bench.options().filter(hasText("Sea registry"))).containsText("in this draft");
    page().keyboard().press("Control+z");
    assertThat(bench.options().filter(hasText("Sea registry")))
        .containsText("newer edition available");
    bench.button("Rules").click();
    bench.open("h45");
    bench.press("t");
    bench.type("gambl");
    assertThat(bench.options().first()).containsText("category · ");
    bench.press("Enter");
    assertThat(bench.rule("h45")).containsText("Gambling");
    bench.press("Escape");
    bench.probe("from 198.51.100.70 to 192.0.2.60 tcp/8443 site dice-den.example");
    assertThat(bench.probeAnswer()).containsText("198.51.100.70 is in Sundholm by Sea registry");
  }

  private static Locator.FilterOptions hasText(String text) {
    return new Locator.FilterOptions().setHasText(text);
  }

  @Test
  void theDirectoryIsReadItsEffectSeenTakenAndTakenBack() {
    bench.button("Library").click();
    bench.button("People").click();
    Locator inForce = page().getByText("is in this draft");
    assertThat(inForce).containsText("The snapshot of");
    page().getByLabel("Search people").fill("nobody at all");
    assertThat(page().getByText("Nobody fits.")).isVisible();
    page().getByLabel("Search people").fill("ben holm");
    Locator person = page().getByRole(AriaRole.ARTICLE);
    assertThat(person).containsText("staff through help desk, IT, ashore");
    assertThat(person).containsText("19 Help desk steers far desks");
    assertThat(person).not().containsText("Rosters go out through Saltbox");
    assertThat(person).containsText("the default rule");
    bench.button("Read the directory now").click();
    page().getByText("What would").click();
    assertThat(bench.dialog()).containsText("2 people new, 1 gone, 1 changed");
    assertThat(bench.dialog()).containsText("Help desk steers far desks −Ben Holm");
    checkAxe("a snapshot's effect");
    bench.dialog().getByText("Adopt ").click();
    assertThat(person).containsText("network team");
    assertThat(person).not().containsText("Help desk steers far desks");
    page().getByRole(AriaRole.LISTBOX).focus();
    bench.press("Control+z");
    assertThat(person).containsText("19 Help desk steers far desks");
    checkAxe("people");
    bench.button("19 Help desk steers far desks").click();
    assertThat(bench.rule("p01")).isVisible();
  }

  @Test
  void recentConnectionsStandStillUntilTheNewerOnesAreAskedFor() {
    bench.button("Library").click();
    bench.button("Signatures").click();
    Locator list = page().getByRole(AriaRole.LISTBOX);
    assertThat(page().getByLabel("Where connections come from")).hasValue("0");
    assertThat(list).isVisible();
    String piece = Base64.getEncoder().encodeToString(heartbeat());
    Object status =
        page()
            .evaluate(
                """
                text => fetch('/api/captures/recent?tap=quay', {
                  method: 'POST',
                  headers: {
                    'Content-Type': 'application/vnd.tcpdump.pcap',
                    'X-Iron-Sieve': 'a tap',
                  },
                  body: Uint8Array.from(atob(text), c => c.charCodeAt(0)),
                }).then(answer => answer.status)""",
                piece);
    Assertions.assertThat(status).isEqualTo(200);
    Locator newer = page().getByText(Pattern.compile("^\\d+ newer$"));
    assertThat(newer).isVisible();
    assertThat(list).not().containsText("10.0.0.77");
    newer.click();
    assertThat(list).containsText("10.0.0.77");
    list.getByText("10.0.0.77").click();
    assertThat(page().getByLabel("The connection", EXACTLY)).containsText("KSK1 quay");
    checkAxe("recent connections");
  }

  /** A kiosk speaks, and ends. */
  private static byte[] heartbeat() {
    byte[] says = "KSK1 quay".getBytes(StandardCharsets.US_ASCII);
    return CaptureWriter.pcap(
        ByteOrder.LITTLE_ENDIAN,
        List.of(
            CaptureWriter.ipv4(77, 2, 6, CaptureWriter.tcp(5000, 7070, 99, 2, new byte[0])),
            CaptureWriter.ipv4(77, 2, 6, CaptureWriter.tcp(5000, 7070, 100, 17, says))));
  }

  @Test
  void aSignatureIsWrittenOnACaptureKeptInAnEditionAndTaken() {
    bench.button("Library").click();
    bench.button("Signatures").click();
    page().getByLabel("Where connections come from").selectOption("1");
    Locator list = page().getByRole(AriaRole.LISTBOX);
    assertThat(list).containsText("Gullwire: call");
    list.getByText("10.40.7.70").first().click();
    Locator connection = page().getByLabel("The connection", EXACTLY);
    assertThat(connection).containsText("No signature matches.");
    assertThat(connection).containsText("KSK1..beat");
    bench.button("Begin with 4b 53 4b 31").click();
    assertThat(page().getByText("Recognises 6 of 39.")).isVisible();
    Locator value = page().getByLabel("Value of condition 1");
    value.fill("53 53 48 2");
    assertThat(page().getByRole(AriaRole.ALERT)).containsText("hexadecimal pairs");
    value.fill("53 53 48 2d 32 2e");
    assertThat(page().getByText("2 of them other signatures’")).isVisible();
    assertThat(page().getByLabel("Mistakes in the samples")).containsText("SSH 10.7.3.9");
    checkAxe("signatures");
    value.fill("4b 53 4b 31");
    page().getByLabel("Application", EXACTLY).fill("Kiosk heartbeat");
    bench.button("Create").click();
    assertThat(bench.dialog()).containsText("1 application new, 0 gone, 0 changed");
    bench.dialog().getByText("Adopt ").click();
    assertThat(connection).containsText("Kiosk heartbeat");
    assertThat(list).containsText("Kiosk heartbeat");
    bench.button("Applications").click();
    page().getByLabel("Search applications").fill("kiosk heartbeat");
    assertThat(page().getByRole(AriaRole.ARTICLE)).containsText("a signature of our own");
  }
}
