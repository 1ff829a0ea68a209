package dev.ironsieve.acceptance;

import static org.assertj.core.api.Assertions.assertThat;

import com.deque.html.axecore.playwright.AxeBuilder;
import com.deque.html.axecore.results.AxeResults;
import com.deque.html.axecore.results.Rule;
import com.microsoft.playwright.Page;
import java.util.List;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.TestInfo;

/** Each test has its own rulebase, a copy of the demo's, open in a real browser. */
abstract class OnTheBench {
  static Server server;
  static Browser browser;

  BenchPage bench;

  @BeforeAll
  static void start() {
    server = new Server("acceptance", true);
    browser = new Browser();
  }

  @AfterAll
  static void stop() {
    browser.close();
    server.close();
  }

  @BeforeEach
  void freshCopyOfTheDemo(TestInfo test) {
    bench = new BenchPage(browser.signedIn(server.address(), "ruth.okell"));
    bench.readIn(test.getTestMethod().orElseThrow().getName(), bench.document(1), "h01");
  }

  @AfterEach
  void noPageComplained() {
    List<String> complaints = List.copyOf(browser.complaints());
    browser.complaints().clear();
    bench.page().context().close();
    assertThat(complaints).isEmpty();
  }

  Page page() {
    return bench.page();
  }

  void checkAxe(String view) {
    AxeResults results =
        new AxeBuilder(page())
            .withTags(List.of("wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa"))
            .analyze();
    assertThat(results.getViolations())
        .as(view)
        .extracting(Rule::getId, rule -> rule.getNodes().getFirst().getHtml())
        .isEmpty();
  }
}
