package dev.ironsieve.gateway;

import dev.ironsieve.core.rulebase.Rulebase;
import java.time.Instant;
import java.util.List;

/** Where the connections of a gateway come from. For one thread. */
interface TrafficSource {
  /** Another revision is in force. */
  void use(Rulebase rulebase);

  /** The connections that began since the last call, in order. */
  List<Attempt> due(Instant now);

  /**
   * A connection was decided.
   *
   * @param decision null if whoever opened it is held
   */
  default void decided(Attempt attempt, StagedDecision decision) {}
}
