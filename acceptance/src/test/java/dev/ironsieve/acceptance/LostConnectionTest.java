package dev.ironsieve.acceptance;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Page;
import com.microsoft.playwright.Route;
import com.microsoft.playwright.options.AriaRole;
import org.junit.jupiter.api.Test;

/** What is typed while the server cannot be reached is not lost. */
class LostConnectionTest extends OnTheBench {
  /** Lets no change of the draft through. */
  private void cutOff() {
    page()
        .route(
            "**/draft",
            route -> {
              if (route.request().method().equals("PATCH")) {
                route.abort();
              } else {
                route.resume(new Route.ResumeOptions());
              }
            });
  }

  @Test
  void aSessionThatEndsKeepsThePageAndWhatWaits() {
    page().context().clearCookies();
    bench.focus("h05");
    bench.press("Control+/");
    assertThat(bench.dialog()).containsText("The session of Ruth Okell has ended");
    checkAxe("session ended");
    bench.dialog().getByLabel("Password").fill("wrong");
    bench.press("Enter");
    assertThat(bench.dialog().getByRole(AriaRole.ALERT)).isVisible();
    assertThat(bench.rule("h05")).hasCount(1);
    bench.dialog().getByLabel("Password").fill(Browser.PASSWORD);
    bench.press("Enter");
    assertThat(bench.dialog()).hasCount(0);
    assertThat(bench.rule("h05")).containsText("disabled");
    page().getByText("all saved").waitFor();
    browser.complaints().clear(); // of the requests without a session
  }

  @Test
  void editsThatWaitSurviveAReloadAndAreMadeOnce() {
    cutOff();
    bench.focus("h05");
    bench.press("Control+/");
    bench.focus("h06");
    bench.press("Control+/");
    assertThat(page().getByText("2 changes wait and will be sent")).isVisible();
    page().reload();
    assertThat(page().getByText("2 changes wait and will be sent")).isVisible();
    page().unroute("**/draft");
    assertThat(bench.rule("h05")).containsText("disabled");
    assertThat(bench.rule("h06")).containsText("disabled");
    page().getByText("all saved").waitFor();
    assertThat(page().getByText("2 changes", new Page.GetByTextOptions().setExact(false)))
        .hasCount(1);
    page().reload();
    assertThat(bench.rule("h05")).containsText("disabled");
    bench.focus("h01");
    bench.press("Control+z");
    assertThat(bench.rule("h06")).not().containsText("disabled");
    bench.press("Control+z");
    assertThat(bench.rule("h05")).not().containsText("disabled");
    browser.complaints().clear(); // of the requests that were cut off
  }
}
