package dev.ironsieve.acceptance;

import com.google.gson.JsonElement;
import com.google.gson.JsonObject;
import com.microsoft.playwright.CDPSession;
import com.microsoft.playwright.Page;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Locale;

/**
 * Measures the bench in a browser with a large rulebase: the work of the page's main thread, as
 * Chromium's DevTools protocol counts it ({@code Performance.getMetrics}, {@code TaskDuration}),
 * and the time until something is painted. Prints a table in Markdown.
 */
public final class ScreenBench {
  private static final int KEYS = 60;
  private static final int EDITS = 12;

  /** Notes when things happen in the page; times in milliseconds since the navigation. */
  private static final String WATCH =
      """
      window.bench = { strips: 0, frames: 0 };
      const seen = new MutationObserver(() => {
        if (!bench.strips && document.querySelector('[data-rule]')) {
          requestAnimationFrame(() => (bench.strips = performance.now()));
        }
      });
      document.addEventListener('DOMContentLoaded', () =>
        seen.observe(document.documentElement, { childList: true, subtree: true }));
      const frame = () => { bench.frames++; requestAnimationFrame(frame); };
      requestAnimationFrame(frame);
      // The time from the next key or input to a change of a part of the page, painted.
      bench.next = (selector) => new Promise((resolve) => {
        const began = (e) => {
          const start = performance.now();
          const text = () => document.querySelector(selector)?.textContent ?? '';
          const before = text();
          const changed = new MutationObserver(() => {
            if (text() === before) return;
            changed.disconnect();
            requestAnimationFrame(() => setTimeout(() => resolve(performance.now() - start)));
          });
          changed.observe(document.body, { childList: true, subtree: true, characterData: true });
          removeEventListener('keydown', began, true);
          removeEventListener('input', began, true);
        };
        addEventListener('keydown', began, true);
        addEventListener('input', began, true);
      });
      """;

  private final Page page;
  private final CDPSession devTools;
  private final List<String> rows = new ArrayList<>();

  private ScreenBench(Page page) {
    this.page = page;
    devTools = page.context().newCDPSession(page);
    devTools.send("Performance.enable");
  }

  /**
   * @param args address of the server, and a rulebase as a file
   */
  public static void main(String[] args) throws IOException {
    try (Browser browser = new Browser()) {
      Page page = browser.signedIn(args[0], "ruth.okell");
      page.addInitScript(WATCH);
      BenchPage bench = new BenchPage(page);
      String document = Files.readString(Path.of(args[1]));
      bench.readIn("Screen " + System.currentTimeMillis(), document, firstRule(document));
      new ScreenBench(page).run();
    }
  }

  private static String firstRule(String document) {
    return com.google.gson.JsonParser.parseString(document)
        .getAsJsonObject()
        .getAsJsonArray("sections")
        .get(0)
        .getAsJsonObject()
        .getAsJsonArray("rules")
        .get(0)
        .getAsJsonObject()
        .get("id")
        .getAsString();
  }

  private void run() {
    List<Double> strips = new ArrayList<>();
    for (int i = 0; i < 3; i++) {
      page.reload();
      page.locator("[data-rule]").first().waitFor();
      page.waitForTimeout(200);
      strips.add(number("bench.strips"));
      page.waitForTimeout(1500);
    }
    row("first strips after a load", strips, "ms", "1,000");
    double bytes =
        number(
            "performance.getEntriesByType('resource').concat(performance.getEntriesByType('navigation'))"
                + ".filter((e) => !e.name.includes('/api/') && e.startTime < bench.strips).reduce((n, e) => n + e.encodedBodySize, 0)");
    rows.add(
        String.format(
            Locale.ROOT, "| first download, compressed | %.0f kB | | 300 |", bytes / 1000));
    arrowKeys();
    scroll();
    filter();
    edit();
    probe();
    System.out.println("| | median | 95 % below | aim |\n|---|---|---|---|");
    rows.forEach(System.out::println);
  }

  private void arrowKeys() {
    page.locator("[data-grid]").focus();
    page.keyboard().press("Home");
    page.waitForTimeout(500);
    List<Double> each = new ArrayList<>();
    for (int i = 0; i < KEYS; i++) {
      each.add(work(() -> page.keyboard().press("ArrowDown"), 60));
    }
    row("main thread for an arrow key", each, "ms", "8");
  }

  private void scroll() {
    page.locator("[data-grid]").hover();
    List<Double> each = new ArrayList<>();
    for (int i = 0; i < KEYS; i++) {
      double frames = number("bench.frames");
      double all = work(() -> page.mouse().wheel(0, 400), 120);
      each.add(all / Math.max(1, number("bench.frames") - frames));
    }
    row("main thread for a frame of scrolling", each, "ms", "16");
  }

  private void filter() {
    page.locator("[data-filter]").focus();
    List<Double> each = new ArrayList<>();
    for (String word : List.of("host 1", "rule 42", "web")) {
      for (char letter : word.toCharArray()) {
        each.add(work(() -> page.keyboard().type(letter + ""), 500));
      }
      page.locator("[data-filter]").fill("");
      page.waitForTimeout(800);
    }
    row("main thread for a key in the filter", each, "ms", "50");
    page.keyboard().press("Escape");
    page.waitForTimeout(500);
  }

  private void edit() {
    page.locator("[data-grid]").focus();
    page.keyboard().press("Home");
    List<Double> each = new ArrayList<>();
    List<Double> work = new ArrayList<>();
    for (int i = 0; i < EDITS; i++) {
      page.keyboard().press("F8");
      page.waitForTimeout(400);
      for (int half = 0; half < 2; half++) { // disabled, and enabled again
        page.evaluate(
            "() => { bench.took = 0; bench.next('footer').then((t) => (bench.took = t)); }");
        work.add(work(() -> page.keyboard().press("Control+/"), 1500));
        double took = number("bench.took");
        if (took > 0) {
          each.add(took);
        }
      }
    }
    row("edit to a changed state line, painted", each, "ms", "100");
    row("main thread for an edit", work, "ms", "");
  }

  private void probe() {
    page.locator("[data-probe-line]").focus();
    List<Double> each = new ArrayList<>();
    for (int i = 0; i < EDITS; i++) {
      page.evaluate(
          "() => { bench.took = 0; bench.next('section[aria-label=Probe] [aria-live]')"
              + ".then((t) => (bench.took = t)); }");
      page.locator("[data-probe-line]")
          .fill("from 10.0." + i + ".7 to 192.0.2." + i + " tcp/44" + i);
      page.waitForTimeout(3000);
      double took = number("bench.took");
      if (took > 0) {
        each.add(took);
      }
    }
    row("probe to a painted answer", each, "ms", "150");
  }

  private double number(String expression) {
    return ((Number) page.evaluate(expression)).doubleValue();
  }

  /** Milliseconds of the main thread for an action and what follows it in some time. */
  private double work(Runnable action, int wait) {
    double before = tasks();
    action.run();
    page.waitForTimeout(wait);
    return (tasks() - before) * 1000;
  }

  private double tasks() {
    for (JsonElement metric : devTools.send("Performance.getMetrics").getAsJsonArray("metrics")) {
      JsonObject one = metric.getAsJsonObject();
      if (one.get("name").getAsString().equals("TaskDuration")) {
        return one.get("value").getAsDouble();
      }
    }
    throw new IllegalStateException("no TaskDuration");
  }

  private void row(String what, List<Double> values, String unit, String aim) {
    if (values.isEmpty()) {
      rows.add("| " + what + " | never seen | | " + aim + " |");
      return;
    }
    List<Double> sorted = new ArrayList<>(values);
    Collections.sort(sorted);
    double median = sorted.get(sorted.size() / 2);
    double high =
        sorted.get((int) Math.min(sorted.size() - 1, Math.ceil(sorted.size() * 0.95) - 1));
    rows.add(
        String.format(Locale.ROOT, "| %s | %.1f %s | %.1f | %s |", what, median, unit, high, aim));
  }
}
