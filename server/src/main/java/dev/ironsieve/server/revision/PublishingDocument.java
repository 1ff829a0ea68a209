package dev.ironsieve.server.revision;

import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * How a rulebase is published.
 *
 * @param fourEyes whether another person has to approve a publish
 * @param request for the draft as it is; left out if nobody asks
 * @param scheduled a publish that waits for its time, or did not happen; left out if there is none
 */
public record PublishingDocument(
    @Schema(required = true) boolean fourEyes, Request request, Scheduled scheduled) {
  /**
   * A publish that waits for its time.
   *
   * @param byName who scheduled it, for people
   * @param due RFC 3339
   * @param failed why it did not happen, or will not; left out if it may
   */
  public record Scheduled(
      @Schema(required = true) String byName,
      @Schema(required = true) String due,
      @Schema(required = true) String note,
      String overrideReason,
      String failed) {}

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
