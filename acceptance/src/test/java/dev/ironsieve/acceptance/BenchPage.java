package dev.ironsieve.acceptance;

import com.google.gson.JsonParser;
import com.microsoft.playwright.APIResponse;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;

/** The bench on a page, in the words of its users. */
record BenchPage(Page page) {
  Locator rule(String id) {
    return page.locator("[data-rule=" + id + "]");
  }

  /** Puts the focus on a rule, as a click beside its words does. */
  void focus(String id) {
    rule(id).click();
  }

  void press(String keys) {
    page.keyboard().press(keys);
  }

  void type(String text) {
    page.keyboard().type(text);
  }

  Locator probeBox() {
    return page.getByRole(
        AriaRole.COMBOBOX, new Page.GetByRoleOptions().setName("Probe").setExact(true));
  }

  void probe(String line) {
    probeBox().fill(line);
    press("Escape");
    press("Escape");
  }

  Locator probeAnswer() {
    return page.locator("section[aria-label=Probe] [aria-live=polite]");
  }

  Locator button(String name) {
    return page.getByRole(
        AriaRole.BUTTON, new Page.GetByRoleOptions().setName(name).setExact(true));
  }

  /** The part of a review about one rule, by its name. */
  Locator cause(String rule) {
    return page.getByRole(
        AriaRole.REGION, new Page.GetByRoleOptions().setName(rule).setExact(true));
  }

  /** What a completion or a list offers; not those of a native box. */
  Locator options() {
    return page.locator("[role=option]");
  }

  Locator dialog() {
    return page.getByRole(AriaRole.DIALOG);
  }

  /** A rulebase as our own document. */
  String document(int rulebase) {
    return page.request()
        .get("/api/rulebases/" + rulebase + "/draft/document", Browser.request())
        .text();
  }

  /** Adds a rulebase from a document by the REST interface, and opens it at a rule. */
  void readIn(String name, String document, String rule) {
    APIResponse answer =
        page.request()
            .post(
                "/api/rulebases/import",
                Browser.request()
                    .setQueryParam("name", name)
                    .setHeader("X-Iron-Sieve", "test")
                    .setHeader("Content-Type", "application/json")
                    .setData(document));
    if (!answer.ok()) {
      throw new IllegalStateException("not read in: " + answer.text());
    }
    long id = JsonParser.parseString(answer.text()).getAsJsonObject().get("id").getAsLong();
    page.navigate("/rulebases/" + id + "/rules");
    rule(rule).waitFor();
  }

  /** Opens the address of a rule, as a colleague would who was sent it, once all is saved. */
  void open(String id) {
    page.getByText("all saved").waitFor();
    page.navigate(page.url().replaceAll("\\?.*", "") + "?rule=" + id);
    rule(id).waitFor();
    rule(id).click();
  }
}
