package dev.ironsieve.server.account;

import org.eclipse.microprofile.openapi.annotations.media.Schema;

/** An account without its secrets. */
public record AccountSummary(
    @Schema(required = true) String name,
    @Schema(required = true) String displayName,
    @Schema(required = true) String role,
    @Schema(required = true) boolean disabled) {
  static AccountSummary of(Account account) {
    return new AccountSummary(
        account.name(), account.displayName(), account.role().word(), account.disabled());
  }
}
