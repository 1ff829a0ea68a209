package dev.ironsieve.server.audit;

import java.util.Arrays;
import java.util.Locale;
import java.util.Optional;

/** The actions that the audit trail records. */
public enum AuditAction {
  SIGN_IN,
  SIGN_IN_FAILED,
  SIGN_OUT,
  FIRST_ADMIN,
  ACCOUNT_ADDED,
  ACCOUNT_CHANGED,
  SETTING_CHANGED,
  APPROVAL_ASKED,
  REQUEST_WITHDRAWN,
  PUBLISH_SCHEDULED,
  SCHEDULED_PUBLISH_CANCELLED,
  SCHEDULED_PUBLISH_FAILED,
  PUBLISHED,
  PUBLISHED_OVER_BLOCKERS,
  ROLLOUT_FINISHED,
  ROLLOUT_STOPPED,
  GATEWAY_ADDED,
  GATEWAY_ENROLLED,
  GATEWAY_REVOKED,
  FEED_ADDED,
  FEED_CHANGED,
  FEED_REMOVED;

  /** The words that people read and exports carry. */
  public String words() {
    return name().toLowerCase(Locale.ROOT).replace('_', ' ');
  }

  static Optional<AuditAction> of(String words) {
    return Arrays.stream(values()).filter(action -> action.words().equals(words)).findFirst();
  }
}
