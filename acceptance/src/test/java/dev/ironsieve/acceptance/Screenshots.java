package dev.ironsieve.acceptance;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;

/** Takes the pictures of {@code docs/screenshots} from a server that runs on fresh demo data. */
public final class Screenshots {
  private final String address;
  private final Path folder;
  private final Browser browser;

  private Screenshots(String address, Path folder, Browser browser) {
    this.address = address;
    this.folder = folder;
    this.browser = browser;
  }

  /**
   * @param args address of the server, folder for the pictures, then names of the pictures to take
   *     (none: all)
   */
  public static void main(String[] args) {
    List<String> only = List.of(args).subList(2, args.length);
    try (Browser browser = new Browser()) {
      Screenshots shots = new Screenshots(args[0], Path.of(args[1]), browser);
      shots
          .pictures()
          .forEach(
              (name, scene) -> {
                if (only.isEmpty() || only.contains(name)) {
                  shots.take(name, scene);
                }
              });
      if (!browser.complaints().isEmpty()) {
        System.err.println("The pages complained: " + browser.complaints());
        System.exit(1);
      }
    }
  }

  private Map<String, Consumer<Page>> pictures() {
    Map<String, Consumer<Page>> out = new LinkedHashMap<>();
    out.put("rules", page -> rule(page, "h12").click());
    out.put(
        "probe",
        page -> {
          page.getByLabel("Probe", new Page.GetByLabelOptions().setExact(true))
              .fill("from 10.1.201.9 to 10.4.3.7 tcp/9100");
          page.getByText("by rule 17").waitFor();
          page.keyboard().press("Escape");
          page.keyboard().press("Escape");
        });
    out.put(
        "edit",
        page -> {
          rule(page, "h09").click();
          page.keyboard().press("f");
          page.keyboard().type("o");
        });
    out.put(
        "commands",
        page -> {
          rule(page, "h09").click();
          page.keyboard().press("Control+k");
          page.getByRole(AriaRole.DIALOG).waitFor();
          page.keyboard().type("kiosk");
        });
    out.put(
        "dark",
        page -> {
          page.getByLabel("Light or dark").click();
          rule(page, "h12").click();
          page.keyboard().press("w");
          page.getByText("by rule 11").waitFor();
        });
    out.put(
        "library",
        page ->
            page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Library"))
                .click());
    out.put(
        "history",
        page -> {
          rule(page, "h21").click();
          page.keyboard().press("Alt+ArrowDown");
          page.waitForTimeout(300);
          page.keyboard().press("Control+/");
          page.waitForTimeout(300);
          page.keyboard().press("Control+z");
          page.waitForTimeout(300);
          page.keyboard().press("Control+z");
          page.waitForTimeout(300);
          page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("History")).click();
          page.getByText("undo:").first().waitFor();
        });
    return out;
  }

  private static Locator rule(Page page, String id) {
    return page.locator("[data-rule=" + id + "]");
  }

  private void take(String name, Consumer<Page> scene) {
    Page page = browser.signedIn(address, "ruth.okell");
    rule(page, "h01").waitFor();
    scene.accept(page);
    page.mouse().move(640, 790);
    page.waitForTimeout(500);
    page.screenshot(new Page.ScreenshotOptions().setPath(folder.resolve(name + ".png")));
    page.context().close();
  }
}
