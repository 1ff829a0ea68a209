package dev.ironsieve.server.audit;

import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * An entry of the audit trail.
 *
 * @param at ISO 8601
 * @param who the name of the account or gateway; for a failed sign-in the name that was entered
 * @param address of the client; left out for actions of the server itself
 * @param action in words
 * @param subject the thing acted on
 * @param detail further words; may be empty
 */
public record AuditEntry(
    @Schema(required = true) long id,
    @Schema(required = true) String at,
    @Schema(required = true) String who,
    String address,
    @Schema(required = true) String action,
    @Schema(required = true) String subject,
    @Schema(required = true) String detail) {}
