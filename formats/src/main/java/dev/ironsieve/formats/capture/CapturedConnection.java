package dev.ironsieve.formats.capture;

import dev.ironsieve.core.model.ServiceLiteral;
import dev.ironsieve.core.sets.Address;
import dev.ironsieve.core.sets.Transport;
import dev.ironsieve.core.signature.Sight;

/**
 * One connection of a capture.
 *
 * @param fromPort source port, 0 where the protocol has none
 * @param toPort destination port, 0 where the protocol has none
 * @param packets of both sides
 * @param sight the first bytes of either side
 */
public record CapturedConnection(
    Address from, int fromPort, Address to, int toPort, int protocol, long packets, Sight sight) {

  /** The protocol with the destination port, if it has ports. */
  public ServiceLiteral service() {
    return Transport.hasPorts(protocol)
        ? ServiceLiteral.ports(protocol, toPort, toPort)
        : ServiceLiteral.whole(protocol);
  }
}
