package dev.ironsieve.acceptance;

import com.microsoft.playwright.APIResponse;
import com.microsoft.playwright.BrowserContext;
import com.microsoft.playwright.BrowserType;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Playwright;
import com.microsoft.playwright.assertions.PlaywrightAssertions;
import com.microsoft.playwright.options.ReducedMotion;
import com.microsoft.playwright.options.RequestOptions;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;

/** Debian's Chromium without a screen, driven by Playwright. */
final class Browser implements AutoCloseable {
  /** How long a page is waited for. Other users of the machine may leave it little for minutes. */
  private static final int PATIENCE_MILLIS = 180_000;

  static final String PASSWORD = "brindlemere-demo";

  private final Playwright playwright;
  private final com.microsoft.playwright.Browser chromium;
  private final List<String> complaints = new ArrayList<>();

  Browser() {
    PlaywrightAssertions.setDefaultAssertionTimeout(PATIENCE_MILLIS);
    playwright =
        Playwright.create(
            new Playwright.CreateOptions().setEnv(Map.of("PLAYWRIGHT_SKIP_BROWSER_DOWNLOAD", "1")));
    chromium =
        playwright
            .chromium()
            .launch(
                new BrowserType.LaunchOptions()
                    .setTimeout(PATIENCE_MILLIS)
                    .setExecutablePath(Path.of("/usr/bin/chromium"))
                    .setArgs(
                        List.of(
                            "--no-sandbox",
                            "--disable-gpu",
                            "--disable-quic",
                            "--no-first-run",
                            "--disable-background-networking",
                            "--disable-component-update",
                            "--disable-sync")));
  }

  /** A page of a fresh browser profile at {@code address}. */
  Page open(String address) {
    Page page = fresh(address);
    page.navigate(address);
    return page;
  }

  private Page fresh(String server) {
    BrowserContext context =
        chromium.newContext(
            new com.microsoft.playwright.Browser.NewContextOptions()
                .setBaseURL(server)
                .setViewportSize(1280, 800)
                .setReducedMotion(ReducedMotion.REDUCE));
    Page page = context.newPage();
    page.setDefaultTimeout(PATIENCE_MILLIS);
    page.onPageError(complaints::add);
    page.onConsoleMessage(
        message -> {
          // A refused request is logged by the browser itself; the tests look at what it shows.
          boolean refusal = message.text().startsWith("Failed to load resource");
          if (message.type().equals("error") && !refusal) {
            complaints.add(message.text());
          }
        });
    return page;
  }

  /**
   * An empty page of a fresh browser profile, which an account of the demo has signed in by REST.
   *
   * @param server address of the server, against which those of the page may be told
   */
  Page signedIn(String server, String name) {
    Page page = fresh(server);
    APIResponse answer =
        page.request()
            .post(
                "/api/session",
                request()
                    .setHeader("X-Iron-Sieve", "test")
                    .setData(Map.of("name", name, "password", PASSWORD)));
    if (!answer.ok()) {
      throw new IllegalStateException(name + " was not let in: " + answer.text());
    }
    return page;
  }

  /** A request to the server that is waited for as long as a page. */
  static RequestOptions request() {
    return RequestOptions.create().setTimeout(PATIENCE_MILLIS);
  }

  /** Errors that pages threw or logged so far. */
  List<String> complaints() {
    return complaints;
  }

  @Override
  public void close() {
    chromium.close();
    playwright.close();
  }
}
