package dev.ironsieve.server.capture;

import java.util.List;

/**
 * A capture in memory: its connections and the faults of reading it.
 *
 * @param id {@link #RECENT} for the recent log
 * @param remarks what of them could not be read
 */
record Capture(
    long id,
    String name,
    Kind kind,
    long packets,
    List<NumberedConnection> connections,
    List<String> remarks) {
  /** The id of the recent log. */
  static final long RECENT = 0;

  /** Where connections come from. */
  enum Kind {
    /** A capture that ships. */
    SAMPLE,
    /** A capture that a person uploaded. */
    BROUGHT,
    /** The newest connections from taps. */
    RECENT
  }

  Capture {
    connections = List.copyOf(connections);
    remarks = List.copyOf(remarks);
  }
}
