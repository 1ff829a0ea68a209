package dev.ironsieve.acceptance;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.google.gson.JsonParser;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import java.nio.file.Path;
import java.util.regex.Pattern;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestInfo;
import org.junit.jupiter.api.io.TempDir;

/** A gateway decides generated connections; what it reports is on the screen, by keyboard. */
class TrafficTest extends OnTheBench {
  @TempDir Path data;
  private GatewayProcess gateway;

  @BeforeEach
  void aGatewayWithTraffic(TestInfo test) {
    String name = "Gate of " + test.getTestMethod().orElseThrow().getName();
    String id = page().url().replaceFirst(".*/rulebases/(\\d+)/.*", "$1");
    Page admin = browser.signedIn(server.address(), "odile.marsh");
    String answer =
        admin
            .request()
            .post(
                "/api/rulebases/" + id + "/gateways",
                Browser.request()
                    .setHeader("X-Iron-Sieve", "test")
                    .setHeader("Content-Type", "application/json")
                    .setData("{\"name\": \"" + name + "\"}"))
            .text();
    admin.context().close();
    String token = JsonParser.parseString(answer).getAsJsonObject().get("token").getAsString();
    gateway =
        new GatewayProcess(
            server,
            data,
            "--token",
            token,
            "--name",
            name,
            "--traffic",
            "demo",
            "--rate",
            "300",
            "--history",
            "2",
            "--syslog",
            "tcp://127.0.0.1:" + server.logPort());
  }

  @AfterEach
  void stopGateway() {
    gateway.close();
  }

  private Locator rows() {
    return page().locator("[data-records] tbody tr");
  }

  private Locator record() {
    return page().getByLabel("Record", new Page.GetByLabelOptions().setExact(true));
  }

  @Test
  void aRulesHitsLeadToItsRecordsAndARecordLeadsToItsRule() {
    assertThat(bench.rule("h09").locator("[data-hits]")).isVisible();
    bench.focus("h09");
    bench.press("l");
    assertThat(page()).hasURL(Pattern.compile("/traffic\\?q=rule\\+10$"));
    assertThat(rows().first()).containsText("10 Managed kiosks to booking");
    checkAxe("traffic");
    page().getByLabel("Filter of the log").press("Enter");
    bench.press("ArrowDown");
    assertThat(record()).containsText("in terminals");
    assertThat(record()).containsText("allow by rule 10 “Managed kiosks to booking” of revision 1");
    bench.press("Enter");
    assertThat(page()).hasURL(Pattern.compile("/rules\\?rule=h09$"));
    assertThat(bench.rule("h09")).hasAttribute("aria-selected", "true");
    page().goBack();
    assertThat(record()).containsText("in terminals");
  }

  @Test
  void theLogIsFilteredHeldAndProbed() {
    page().getByLabel("Main navigation").getByText("Traffic").click();
    Locator filter = page().getByLabel("Filter of the log");
    filter.fill("verdict allow rule 4");
    assertThat(page().getByText("No record fits.")).isVisible();
    filter.fill("verdict deny");
    assertThat(page().getByText("Expected allow, drop, reject, caution, refused")).isVisible();
    filter.fill("verdict refused address 203.0.113.128/25");
    assertThat(rows().first()).containsText("4 Known nuisances");
    page().locator("[data-records]").focus();
    bench.press("ArrowDown");
    assertThat(bench.button("Resume Space")).isVisible();
    bench.press("Space");
    assertThat(bench.button("Hold Space")).isVisible();
    page().locator("[data-records]").focus();
    bench.press("p");
    assertThat(bench.probeAnswer()).containsText("drop by");
    assertThat(bench.probeBox())
        .hasValue(Pattern.compile("^from 203\\.0\\.113\\..* in internet to"));
  }

  @Test
  void aRuleThatOnlyObservesSaysWhatItWouldHaveDecided() {
    bench.focus("h07");
    bench.press("o");
    assertThat(bench.rule("h07")).containsText("observe only");
    page().getByText("all saved").waitFor();
    assertThat(bench.rule("h07").locator("[data-hits]")).isVisible();
    Locator panel = page().getByLabel("Rule in focus");
    assertThat(panel).containsText("It decides nothing.");
    page().getByLabel("Main navigation").getByText("Publish").click();
    assertThat(bench.cause("Passengers reach booking")).containsText("allow → drop");
    assertThat(page().locator("[data-recorded]").first()).containsText("recorded in the last week");
    page().getByLabel("Reason to override").fill("Watch it for a week");
    bench.button("Publish revision 2").press("Enter");
    assertThat(page().getByText("draft on revision 2, 0 changes")).isVisible();
    page().getByLabel("Main navigation").getByText("Rules").click();
    bench.focus("h07");
    assertThat(panel).containsText(Pattern.compile("[1-9][\\d,]* of them got another verdict"));
    bench.press("o");
    assertThat(bench.rule("h07")).not().containsText("observe only");
  }

  @Test
  void theFallFiltersTheLogByRule() {
    page().getByLabel("Main navigation").getByText("Traffic").click();
    Locator step =
        page()
            .getByRole(
                AriaRole.BUTTON,
                new Page.GetByRoleOptions().setName(Pattern.compile("^8 Passengers reach")));
    assertThat(step).containsText("allow");
    step.click();
    assertThat(step).hasAttribute("aria-pressed", "true");
    assertThat(page().getByLabel("Filter of the log")).hasValue("rule 8");
    assertThat(rows().first()).containsText("8 Passengers reach booking");
    page().goBack();
    assertThat(page().getByLabel("Filter of the log")).hasValue("");
    assertThat(page().getByText("records lost")).containsText("1 gateway reports · 0 records lost");
  }
}
