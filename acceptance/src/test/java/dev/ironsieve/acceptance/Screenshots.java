package dev.ironsieve.acceptance;

import com.microsoft.playwright.Page;
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
      if (only.isEmpty() || only.contains("home")) {
        Page page = browser.signedIn(shots.address, "ruth.okell");
        page.navigate("/?all");
        page.getByText("refused in 24 h").last().waitFor();
        shots.shoot(page, "home");
        page.context().close();
      }
      if (only.isEmpty() || only.contains("audit")) {
        Page page = browser.signedIn(shots.address, "odile.marsh");
        page.navigate("/rulebases/1/audit");
        page.locator("tbody").getByText("gateway enrolled").first().waitFor();
        shots.shoot(page, "audit");
        page.context().close();
      }
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

  private Map<String, Consumer<BenchPage>> pictures() {
    Map<String, Consumer<BenchPage>> out = new LinkedHashMap<>();
    out.put("rules", bench -> bench.focus("h12"));
    out.put(
        "probe",
        bench -> {
          bench.probe("from 10.1.201.9 to 10.4.3.7 tcp/9100");
          bench.page().getByText("rule 31", new Page.GetByTextOptions().setExact(true)).waitFor();
          bench.button("rule 31").click();
        });
    out.put(
        "edit",
        bench -> {
          bench.focus("h09");
          bench.press("f");
          bench.type("o");
        });
    out.put(
        "reach",
        bench -> {
          bench.button("Reach").click();
          bench.page().getByLabel("Zone matrix").waitFor();
          bench.page().locator("[data-question]").fill("who can reach datacentre from offices");
          bench.page().locator("[data-question]").press("Escape");
          bench.button("Keep as check…").waitFor();
        });
    out.put(
        "dark",
        bench -> {
          bench.button("Switch theme").click();
          bench.focus("h12");
          bench.press("w");
          bench.button("rule 12").waitFor();
        });
    out.put(
        "checks",
        bench -> {
          bench.button("Checks").click();
          bench.button("Coverage").click();
          bench.page().getByText("single mistakes").waitFor();
        });
    out.put(
        "publish",
        bench -> {
          bench.focus("h05");
          bench.press("Control+/");
          bench.page().getByLabel("Main navigation").getByText("Publish").click();
          bench.cause("Echo inside").waitFor();
          bench.page().getByText("revision 1 in force").nth(2).waitFor();
        });
    out.put("library", bench -> bench.button("Library").click());
    out.put(
        "findings",
        bench -> {
          bench.button("Findings").click();
          bench.page().getByText("no verdict changes").first().waitFor();
          bench.press("2");
        });
    out.put(
        "directory",
        bench -> {
          bench.button("Library").click();
          bench.button("People").click();
          bench.page().getByLabel("Search people").fill("ben holm");
          bench.page().getByText("the default rule").waitFor();
        });
    out.put(
        "common",
        bench -> {
          bench.page().navigate(address + "/rulebases/2/rules?rule=a05");
          bench.page().getByText("decides nothing in 1 of 2").waitFor();
        });
    out.put(
        "feeds",
        bench -> {
          bench.button("Library").click();
          bench.button("Feeds").click();
          bench.page().getByText("Sea registry").click();
          bench.page().getByText("203.0.113.300/32,Norrey").waitFor();
        });
    out.put(
        "signatures",
        bench -> {
          bench.button("Library").click();
          bench.button("Signatures").click();
          bench.page().getByText("10.40.7.70").first().click();
          bench.button("Begin with 4b 53 4b 31").click();
          bench.page().getByLabel("Application").fill("Kiosk heartbeat");
          bench.page().getByText("nothing by mistake").waitFor();
        });
    out.put(
        "applications",
        bench -> {
          bench.button("Library").click();
          bench.button("Applications").click();
          bench.page().getByLabel("Search applications").fill("gullwire");
          bench.page().getByText("shows when sealed too").waitFor();
        });
    out.put(
        "edition",
        bench -> {
          bench.button("Library").click();
          bench.button("Applications").click();
          bench.button("What would 2026-12 change?").click();
          bench.page().getByText("new, 1 gone").waitFor();
        });
    out.put(
        "history",
        bench -> {
          bench.focus("h09");
          for (String keys : List.of("Alt+ArrowDown", "Control+/", "Control+z", "Control+z")) {
            bench.press(keys);
            bench.page().waitForTimeout(300);
          }
          bench.button("History").click();
          bench.page().getByText("undo:").first().waitFor();
        });
    out.put(
        "traffic",
        bench -> {
          bench.page().getByLabel("Main navigation").getByText("Traffic").click();
          bench.page().getByLabel("Filter of the log").fill("verdict refused since 24h");
          bench.page().getByText("11 Gate readers").waitFor();
          bench.page().locator("[data-records] tbody tr").nth(2).click();
        });
    return out;
  }

  private void take(String name, Consumer<BenchPage> scene) {
    Page page = browser.signedIn(address, "ruth.okell");
    page.navigate("/rulebases/1/rules");
    BenchPage bench = new BenchPage(page);
    bench.rule("h01").waitFor();
    scene.accept(bench);
    page.mouse().move(640, 790);
    page.waitForTimeout(500);
    shoot(page, name);
    page.context().close();
  }

  private void shoot(Page page, String name) {
    page.screenshot(new Page.ScreenshotOptions().setPath(folder.resolve(name + ".png")));
  }
}
