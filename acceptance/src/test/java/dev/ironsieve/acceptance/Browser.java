package dev.ironsieve.acceptance;

import com.microsoft.playwright.BrowserContext;
import com.microsoft.playwright.BrowserType;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Playwright;
import com.microsoft.playwright.assertions.PlaywrightAssertions;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.ReducedMotion;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;

/** Debian's Chromium without a screen, driven by Playwright. */
final class Browser implements AutoCloseable {
  /** How long a page is waited for. A busy machine is no failure, so it is long. */
  private static final int PATIENCE_MILLIS = 60_000;

  private static final String PASSWORD = "brindlemere-demo";

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
    BrowserContext context =
        chromium.newContext(
            new com.microsoft.playwright.Browser.NewContextOptions()
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
    page.navigate(address);
    return page;
  }

  /** A page on which an account of the demo is signed in. */
  Page signedIn(String address, String name) {
    Page page = open(address);
    Page.GetByLabelOptions exactly = new Page.GetByLabelOptions().setExact(true);
    page.getByLabel("Name", exactly).fill(name);
    page.getByLabel("Password", exactly).fill(PASSWORD);
    page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Sign in")).click();
    return page;
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
