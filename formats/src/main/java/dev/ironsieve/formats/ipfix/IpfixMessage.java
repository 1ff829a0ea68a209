package dev.ironsieve.formats.ipfix;

import java.time.Instant;
import java.util.List;

/**
 * A message that was read.
 *
 * @param domain the observation domain
 * @param sentAt by the exporter's clock
 * @param flows the records that have both addresses of a connection
 * @param others records that have not, and those of options
 * @param unread sets whose template is not known, so that their records cannot be counted
 * @param lost records of the domain that never came, by the gap before this message
 */
public record IpfixMessage(
    long domain, Instant sentAt, List<FlowRecord> flows, int others, int unread, long lost) {
  public IpfixMessage {
    flows = List.copyOf(flows);
  }
}
