package dev.ironsieve.server.draft;

import dev.ironsieve.core.model.Connection;
import java.time.Instant;
import java.util.List;

/** The connections that the gateways of a rulebase recorded. */
public interface RecordedConnections {
  /**
   * Connections since a time, each once, the newest first. Hosts, devices, times and files are as
   * they were, not as rules name them.
   *
   * @param most how many
   */
  List<Connection> since(long rulebase, Instant time, int most);
}
