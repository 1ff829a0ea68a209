package dev.ironsieve.acceptance;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import org.junit.jupiter.api.Test;

/** Accounts, as an admin keeps them and as people meet them. */
class AccountsTest extends OnTheBench {
  private static final Page.GetByLabelOptions EXACTLY = new Page.GetByLabelOptions().setExact(true);
  private static final String FIRST = "a long enough password";

  private static void signIn(Page page, String name, String password) {
    page.getByLabel("Name", EXACTLY).fill(name);
    page.getByLabel("Password", EXACTLY).fill(password);
    page.getByLabel("Password", EXACTLY).press("Enter");
  }

  @Test
  void anAdminAddsAnAccountChangesItsRoleAndDisablesIt() {
    Page admin = browser.signedIn(server.address(), "odile.marsh");
    admin.navigate(page().url().replaceFirst("/rules.*", "/accounts"));
    admin.getByLabel("Name to sign in with").fill("mara.voss");
    admin.getByLabel("Full name").fill("Mara Voss");
    admin.getByLabel("First password").fill("short");
    admin.getByText("Add the account").click();
    assertThat(admin.getByRole(AriaRole.ALERT)).containsText("12 characters at least");
    admin.getByLabel("First password").fill(FIRST);
    admin.getByText("Add the account").click();
    Locator role = admin.getByLabel("Role of Mara Voss");
    assertThat(role).hasValue("editor");
    role.selectOption("viewer");
    assertThat(role).hasValue("viewer");
    assertThat(admin.getByRole(AriaRole.ALERT)).hasCount(0);

    Page mara = browser.open(server.address());
    signIn(mara, "mara.voss", FIRST);
    assertThat(mara.getByLabel("Password", EXACTLY)).hasCount(0);
    mara.navigate(page().url());
    mara.getByText("Mara Voss").click();
    assertThat(mara.getByText("mara.voss, viewer")).isVisible();
    mara.getByText("Sign out").click();
    assertThat(mara.getByLabel("Password", EXACTLY)).isVisible();
    mara.navigate(page().url());
    assertThat(mara.getByLabel("Password", EXACTLY)).isVisible();

    Locator line =
        admin
            .getByRole(AriaRole.LISTITEM)
            .filter(new Locator.FilterOptions().setHasText("mara.voss"));
    line.getByText("Disable").click();
    assertThat(line.getByText("Enable")).isVisible();
    signIn(mara, "mara.voss", FIRST);
    assertThat(mara.getByRole(AriaRole.ALERT)).isVisible();
    mara.context().close();

    admin.getByLabel("Main navigation").getByText("Audit").click();
    admin.getByLabel("Search the audit trail").fill("mara.voss");
    Locator entries = admin.locator("tbody tr");
    assertThat(entries).hasCount(6);
    assertThat(entries.first()).containsText("sign in failed");
    admin.getByLabel("Action", EXACTLY).selectOption("account changed");
    assertThat(entries).hasCount(2);
    assertThat(entries.first()).containsText("disabled");
    assertThat(entries.last()).containsText("role viewer");
    admin.context().close();
  }
}
