package dev.ironsieve.formats.capture;

import dev.ironsieve.core.sets.Address;
import dev.ironsieve.core.sets.Transport;
import dev.ironsieve.core.signature.Sight;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/** One connection, assembled while its packets arrive. */
final class Flow {
  private static final int MOST_DATAGRAMS = 4;
  private static final int MOST_OF_DATAGRAM = 2048;

  private final Address client;
  private final int clientPort;
  private final Address server;
  private final int serverPort;
  private final int protocol;
  private final Beginning fromClient = new Beginning();
  private final Beginning fromServer = new Beginning();
  private final List<byte[]> datagrams = new ArrayList<>(1); // of the client
  private byte[] answer = new byte[0];
  private long packets;
  private boolean ended;
  private boolean handedOn;
  private long held; // bytes in memory
  private final int firstPiece;
  private int lastPiece;

  /**
   * @param answers whether the segment is the server's: the first that is seen of the connection
   * @param piece number of the piece in which it begins
   */
  Flow(Segment segment, boolean answers, int piece) {
    firstPiece = piece;
    client = answers ? segment.to() : segment.from();
    clientPort = answers ? segment.toPort : segment.fromPort;
    server = answers ? segment.from() : segment.to();
    serverPort = answers ? segment.fromPort : segment.toPort;
    protocol = segment.protocol;
  }

  private boolean isClients(Segment segment) {
    return segment.fromPort == clientPort
        && segment.fromLow == client.low()
        && segment.fromHigh == client.high();
  }

  /** Whether the segment opens another connection between the same ends. */
  boolean isAnother(Segment segment) {
    return protocol == Transport.TCP
        && segment.has(Segment.SYN)
        && !segment.has(Segment.ACK)
        && (ended || (fromClient.begun() && !fromClient.startsAt(segment.sequence + 1)));
  }

  /** The bytes that this uses in memory. */
  long held() {
    return held;
  }

  /** Whether either side has said that it ends. */
  boolean hasEnded() {
    return ended;
  }

  boolean isHandedOn() {
    return handedOn;
  }

  int firstPiece() {
    return firstPiece;
  }

  /** The number of the piece with its last packet so far. */
  int lastPiece() {
    return lastPiece;
  }

  /** Returns by how many bytes more than before this now holds in memory. */
  int add(Segment segment, int piece) {
    lastPiece = piece;
    int more = taken(segment);
    held += more;
    return more;
  }

  private int taken(Segment segment) {
    packets++;
    boolean clients = isClients(segment);
    if (protocol == Transport.TCP) {
      Beginning side = clients ? fromClient : fromServer;
      int sequence = segment.sequence;
      if (segment.has(Segment.SYN)) {
        sequence++;
        if (!side.begun()) {
          side.from(sequence);
        }
      }
      ended |= segment.has(Segment.FIN) || segment.has(Segment.RST);
      return segment.length == 0 || handedOn
          ? 0
          : side.add(sequence, segment.bytes(), segment.payload, segment.length);
    }
    int length = handedOn ? 0 : Math.min(segment.length, MOST_OF_DATAGRAM);
    if (length > 0 && clients && datagrams.size() < MOST_DATAGRAMS) {
      datagrams.add(copy(segment, length));
    } else if (length > 0 && !clients && answer.length == 0) {
      answer = copy(segment, length);
    } else {
      return 0;
    }
    return length;
  }

  private static byte[] copy(Segment segment, int length) {
    return Arrays.copyOfRange(segment.bytes(), segment.payload, segment.payload + length);
  }

  /** The part seen so far, which is then dropped. */
  CapturedConnection handOn() {
    Sight sight =
        protocol == Transport.UDP
            ? Sight.datagrams(protocol, serverPort, datagrams, answer)
            : Sight.stream(protocol, serverPort, fromClient.bytes(), fromServer.bytes());
    handedOn = true;
    held = 0;
    fromClient.forget();
    fromServer.forget();
    datagrams.clear();
    answer = new byte[0];
    return new CapturedConnection(client, clientPort, server, serverPort, protocol, packets, sight);
  }
}
