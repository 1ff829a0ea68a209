package dev.ironsieve.server.account;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.ironsieve.server.refusal.Refusal;
import io.quarkus.elytron.security.common.BcryptUtil;
import org.junit.jupiter.api.Test;

class AccountsTest {
  @Test
  void anUnknownNameTakesAsLongAsAKnownOneAndNoPasswordGoesWithIt() {
    assertThat(Accounts.NOBODYS_HASH).startsWith("$2a$" + Accounts.BCRYPT_COST + "$");
    assertThat(BcryptUtil.matches("nobody", Accounts.NOBODYS_HASH)).isTrue();
    assertThatThrownBy(() -> Account.checkPassword("nobody")).isInstanceOf(Refusal.class);
  }
}
