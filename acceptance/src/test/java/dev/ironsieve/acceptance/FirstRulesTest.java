package dev.ironsieve.acceptance;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.google.gson.JsonParser;
import com.microsoft.playwright.APIResponse;
import com.microsoft.playwright.Locator;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestInfo;

/** An empty rulebase: the newest editions, the first rules that it is offered, or an own one. */
class FirstRulesTest extends OnTheBench {
  @BeforeEach
  void openAnEmptyRulebase(TestInfo test) {
    APIResponse made =
        page()
            .request()
            .post(
                "/api/rulebases",
                Browser.request()
                    .setHeader("X-Iron-Sieve", "test")
                    .setData(Map.of("name", "New " + test.getDisplayName())));
    long id = JsonParser.parseString(made.text()).getAsJsonObject().get("id").getAsLong();
    page().navigate("/rulebases/" + id + "/rules");
    offers().waitFor();
  }

  private Locator offers() {
    return page().getByLabel("First rules");
  }

  private Locator rules() {
    return page().locator("[data-rule]");
  }

  @Test
  void offeredRulesAreTakenOneByOneAndStandInTheirOrder() {
    checkAxe("first rules");
    bench.button("Insert “Refuse the rest”").click();
    assertThat(rules()).hasCount(1);
    bench.button("Insert “No peer-to-peer, anonymisers or remote control”").click();
    assertThat(rules()).hasCount(2);
    assertThat(rules().first()).containsText("category peer-to-peer");
    bench.button("Insert “People who are signed in”").click();
    assertThat(rules()).hasCount(3);
    assertThat(rules().nth(1)).containsText("any signed in");
    assertThat(rules().nth(2)).containsText("Refuse the rest");
    assertThat(offers().locator("li")).hasCount(3);
    assertThat(page().locator("[data-count=shadowed]")).hasCount(0);
  }

  @Test
  void theKeyForANewRuleWorksWhereThereIsNone() {
    page().locator("[data-grid]").focus();
    bench.press("Control+Enter");
    assertThat(page().getByLabel("Name of rule 1")).isFocused();
    bench.type("Pilots");
    bench.press("Enter");
    assertThat(rules().first()).containsText("Pilots");
    assertThat(offers()).hasCount(0);
  }
}
