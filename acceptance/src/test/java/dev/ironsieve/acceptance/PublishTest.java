package dev.ironsieve.acceptance;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import java.nio.file.Path;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** From an edit to a revision. */
class PublishTest extends OnTheBench {
  private Locator release() {
    return page().getByLabel("Before it can be published");
  }

  @Test
  void anEditIsReviewedInMeaningAndPublishedInSpiteOfABlockerWithAReason() {
    bench.focus("h05");
    bench.press("Control+/");
    assertThat(bench.rule("h05")).containsText("disabled");
    bench.press("Control+k");
    bench.dialog().waitFor();
    bench.type("publish");
    bench.press("Enter");
    assertThat(page()).hasURL(Pattern.compile("/publish$"));
    Locator cause = bench.cause("Echo inside");
    assertThat(cause).containsText("allow → drop");
    assertThat(cause).containsText("icmp/8");
    assertThat(release()).containsText("The check \"Contractors do not meet\" fails.");
    Locator publish = bench.button("Publish revision 2");
    assertThat(publish).isDisabled();
    bench.button("Comment on Echo inside").press("Enter");
    bench.type("Who asks for it?");
    bench.press("Control+Enter");
    assertThat(page().getByLabel("Comments on Echo inside"))
        .containsText(Pattern.compile("Ruth Okell .* Who asks for it\\?"));
    page().getByLabel("Note").fill("No echo inside");
    page().getByLabel("Reason to override").fill("The checks are being mended");
    checkAxe("publish");
    publish.press("Enter");
    assertThat(page().getByText("draft on revision 2, 0 changes")).isVisible();
    Locator revisions = page().getByLabel("Revisions", new Page.GetByLabelOptions().setExact(true));
    assertThat(revisions).containsText("No echo inside");
    assertThat(revisions)
        .containsText("Published in spite of blockers: The checks are being mended");
    assertThat(page().getByText("the draft has no changes")).isVisible();
    page().getByLabel("What changed in revision 2").click();
    assertThat(page()).hasURL(Pattern.compile("/publish\\?revision=2$"));
    assertThat(bench.cause("Echo inside")).containsText("allow → drop");
    assertThat(page().getByLabel("Comments on Echo inside")).containsText("Who asks for it?");
    page().goBack();
    assertThat(page().getByText("the draft has no changes")).isVisible();
    bench.button("Rules").click();
    assertThat(bench.rule("h05")).containsText("disabled");
  }

  @Test
  void aRevisionIsOpenedToReadWithItsFindings() {
    bench.focus("h05");
    bench.press("Delete");
    assertThat(bench.rule("h05")).hasCount(0);
    String publishPage = page().url().replaceFirst("/rules.*", "/publish");
    page().navigate(publishPage);
    page()
        .getByLabel("Open revision 1", new Page.GetByLabelOptions().setExact(true))
        .press("Enter");
    assertThat(page()).hasURL(Pattern.compile("/revisions/1$"));
    assertThat(bench.rule("h05")).isVisible();
    bench.focus("h12");
    assertThat(page().getByLabel("Rule in focus")).containsText("shadowed");
    bench.press("Delete");
    assertThat(bench.rule("h12")).isVisible();
    checkAxe("revision");
  }

  @Test
  void theFirstPageShowsWhatNeedsAttention() {
    bench.focus("h05");
    bench.press("Control+/");
    assertThat(bench.rule("h05")).containsText("disabled");
    bench.press("Control+k");
    bench.dialog().waitFor();
    bench.type("home");
    bench.press("Enter");
    Locator strip =
        page()
            .getByLabel(
                "theFirstPageShowsWhatNeedsAttention", new Page.GetByLabelOptions().setExact(true));
    assertThat(strip).containsText("1 change not published");
    assertThat(strip).containsText("2of 9 checks fail");
    assertThat(strip).containsText("0of 0 gateways not up to date");
    checkAxe("home");
    strip.getByText("1 change not published").press("Enter");
    assertThat(bench.cause("Echo inside")).containsText("allow → drop");
  }

  @Test
  void aSecondPersonApprovesWhereAnAdminRequiresIt() {
    String publishPage = page().url().replaceFirst("/rules.*", "/publish");
    Page odile = browser.signedIn(server.address(), "odile.marsh");
    odile.navigate(publishPage);
    Locator required = odile.getByLabel("A second person has to approve each publish");
    required.click();
    assertThat(required).isChecked();
    bench.focus("h05");
    bench.press("Control+/");
    assertThat(bench.rule("h05")).containsText("disabled");
    page().navigate(publishPage);
    page().getByLabel("Reason to override").fill("The checks are being mended");
    page().getByLabel("Note").fill("No echo inside");
    bench.button("Ask for approval").press("Enter");
    Locator own = page().getByLabel("Request to publish");
    assertThat(own).containsText("You ask to publish this draft: No echo inside");
    assertThat(own.getByText("Approve and publish")).hasCount(0);
    Locator asked = odile.getByLabel("Request to publish");
    assertThat(asked).containsText("Ruth Okell asks to publish this draft: No echo inside");
    assertThat(asked).containsText("In spite of blockers: The checks are being mended");
    asked.getByText("Approve and publish revision 2").press("Enter");
    assertThat(odile.getByText("draft on revision 2, 0 changes")).isVisible();
    assertThat(odile.getByLabel("Revisions", new Page.GetByLabelOptions().setExact(true)))
        .containsText("Ruth Okell, approved by Odile Marsh");
    odile.context().close();
  }

  @Test
  void aPublishWaitsForItsTimeUntilTheDraftIsChanged() {
    bench.focus("h05");
    bench.press("Control+/");
    assertThat(bench.rule("h05")).containsText("disabled");
    page().getByLabel("Main navigation").getByText("Publish").click();
    page().getByLabel("Reason to override").fill("The checks are being mended");
    page().getByLabel("Note").fill("No echo inside");
    bench.button("Publish later…").press("Enter");
    checkAxe("publish later");
    bench.press("Enter");
    Locator scheduled = page().getByLabel("Scheduled publish");
    assertThat(scheduled).containsText("22:00: No echo inside");
    assertThat(scheduled).containsText("Ruth Okell scheduled it");
    page().getByLabel("Main navigation").getByText("Rules").click();
    bench.focus("h07");
    bench.press("Control+/");
    assertThat(bench.rule("h07")).containsText("disabled");
    page().getByLabel("Main navigation").getByText("Publish").click();
    assertThat(scheduled).containsText("The draft was changed after it was scheduled.");
    scheduled.getByText("Dismiss").press("Enter");
    assertThat(scheduled).hasCount(0);
  }

  @Test
  void allChangesAreDiscardedAfterAQuestion() {
    bench.focus("h05");
    bench.press("Control+/");
    bench.press("Alt+Home");
    assertThat(bench.rule("h05")).hasAttribute("aria-rowindex", "1");
    page().getByLabel("Main navigation").getByText("Publish").click();
    bench.button("Discard all changes…").press("Enter");
    assertThat(bench.dialog()).containsText("Discard 2 changes?");
    bench
        .dialog()
        .getByText("Discard", new Locator.GetByTextOptions().setExact(true))
        .press("Enter");
    assertThat(page().getByText("draft on revision 1, 0 changes")).isVisible();
    page().getByLabel("Main navigation").getByText("Rules").click();
    assertThat(bench.rule("h05")).hasAttribute("aria-rowindex", "5");
    assertThat(bench.rule("h05")).not().containsText("disabled");
  }

  @Test
  void aWitnessGoesToTheProbeAndBackReturnsToTheReview() {
    bench.focus("h05");
    bench.press("Control+/");
    assertThat(bench.rule("h05")).containsText("disabled");
    page().getByLabel("Main navigation").getByText("Publish").click();
    bench.cause("Echo inside").getByTitle("Probe this witness").first().click();
    assertThat(bench.probeAnswer()).containsText("drop by");
    page().goBack();
    assertThat(bench.cause("Echo inside")).containsText("allow → drop");
  }

  @Test
  void aGatewayEnrolsAndFollowsWhatIsPublishedAlsoAfterItWasKilled(@TempDir Path data) {
    Page admin = browser.signedIn(server.address(), "odile.marsh");
    String publishPage = page().url().replaceFirst("/rules.*", "/publish");
    admin.navigate(publishPage);
    admin.getByText("Add a gateway…").click();
    admin.getByLabel("Name").fill("Quay gate");
    admin
        .getByRole(AriaRole.DIALOG)
        .getByText("Add", new Locator.GetByTextOptions().setExact(true))
        .click();
    String command = admin.locator("pre").innerText();
    String token = command.substring(command.lastIndexOf(' ') + 1);
    admin.getByText("Close").click();
    Locator line = admin.getByLabel("Quay gate");
    assertThat(line).containsText("not enrolled");
    GatewayProcess gateway = new GatewayProcess(server, data, "--token", token);
    try {
      assertThat(line).containsText("revision 1 in force");
      gateway.close();
      bench.focus("h05");
      bench.press("Control+/");
      assertThat(bench.rule("h05")).containsText("disabled");
      page().navigate(publishPage);
      page().getByLabel("Reason to override").fill("Trying a gateway");
      bench.button("Publish revision 2").click();
      assertThat(line).containsText("behind: revision 1 in force");
      gateway = new GatewayProcess(server, data);
      assertThat(line).containsText("revision 2 in force");
      line.getByText("Revoke Quay gate").press("Enter");
      assertThat(line).containsText("revoked");
    } finally {
      gateway.close();
      admin.context().close();
    }
  }
}
