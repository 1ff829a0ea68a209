package dev.ironsieve.acceptance;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import java.io.IOException;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;

/** The first start without demo data. */
class SetUpTest {
  private static final String PASSWORD = "a long enough password";

  @Test
  void thePrintedLinkMakesTheFirstAdminOnceAndThereAreNoDemoAccounts() throws IOException {
    try (Server server = new Server("setup", false);
        Browser browser = new Browser()) {
      Matcher link = Pattern.compile("set-up link: (\\S+)").matcher(server.said());
      assertThat(link.find()).isTrue();
      Page page = browser.open(server.address() + link.group(1));
      make(page, "ada.cole", "short");
      assertThat(page.getByRole(AriaRole.ALERT)).containsText("12 characters at least");
      make(page, "ada.cole", PASSWORD);
      signIn(page, "ruth.okell", "brindlemere-demo");
      assertThat(page.getByRole(AriaRole.ALERT)).containsText("do not go together");
      signIn(page, "ada.cole", PASSWORD);
      assertThat(page.getByText("No rulebases yet.")).isVisible();

      Page again = browser.open(server.address() + link.group(1));
      make(again, "eve.lynd", PASSWORD);
      assertThat(again.getByRole(AriaRole.ALERT)).containsText("was used or has ended");
      assertThat(browser.complaints()).isEmpty();
    }
  }

  private static void make(Page page, String name, String password) {
    page.getByLabel("Name to sign in with").fill(name);
    page.getByLabel("Full name").fill("Ada Cole");
    page.getByLabel("Password").fill(password);
    page.getByText("Create the account").click();
  }

  private static void signIn(Page page, String name, String password) {
    Page.GetByLabelOptions exactly = new Page.GetByLabelOptions().setExact(true);
    page.getByLabel("Name", exactly).fill(name);
    page.getByLabel("Password", exactly).fill(password);
    page.getByLabel("Password", exactly).press("Enter");
  }
}
