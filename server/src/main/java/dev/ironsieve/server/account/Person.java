package dev.ironsieve.server.account;

import org.eclipse.microprofile.openapi.annotations.media.Schema;

/** The person of a session. */
public record Person(
    @Schema(required = true) String name,
    @Schema(required = true) String displayName,
    @Schema(required = true) String role) {
  static Person of(Account account) {
    return new Person(account.name(), account.displayName(), account.role().word());
  }
}
