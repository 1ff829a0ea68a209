package dev.ironsieve.server.revision;

import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * How a rulebase is published.
 *
 * @param fourEyes whether another person has to approve a publish
 * @param request for the draft as it is; left out if nobody asks
 */
public record PublishingDocument(@Schema(required = true) boolean fourEyes, Request request) {
  /**
   * A request to publish.
   *
   * @param by the name of the account that asks
   * @param byName its name for people
   * @param at ISO 8601
   * @param digest SHA-256 of what would be published, hexadecimal
   */
  public record Request(
      @Schema(required = true) String by,
      @Schema(required = true) String byName,
      @Schema(required = true) String at,
      @Schema(required = true) String digest,
      @Schema(required = true) String note,
      String overrideReason) {}
}
