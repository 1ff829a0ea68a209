package dev.ironsieve.formats.radius;

import dev.ironsieve.core.sets.Address;
import dev.ironsieve.core.sets.Family;
import dev.ironsieve.formats.InvalidDocument;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.Arrays;

/**
 * One request of RADIUS accounting (RFC 2866), reduced to a sign-in.
 *
 * @param user the name that was signed in with (RFC 2865, section 5.1); null if absent
 * @param address the assigned address (RFC 2865, section 5.8; RFC 6911, section 3.1); null if
 *     absent
 * @param device the facts of the device: the text behind {@value #DEVICE} in a Class attribute (RFC
 *     2865, section 5.25), which accounting repeats; null if absent
 * @param session the sender's id of the session; null if absent
 */
public record Accounting(
    Status status, String user, Address address, String device, String session, byte[] answer) {
  /** The prefix of a Class attribute that contains the state of a device. */
  public static final String DEVICE = "device: ";

  /** The kind of request, by its number (RFC 2866, section 5.1). */
  public enum Status {
    START(1),
    STOP(2),
    INTERIM(3),
    /** Anything else; when it is sent, that the sender was switched on. */
    OTHER(7);

    private final int number;

    Status(int number) {
      this.number = number;
    }

    private static Status of(int number) {
      return Arrays.stream(values())
          .filter(status -> status.number == number)
          .findFirst()
          .orElse(OTHER);
    }
  }

  /** Longest packet, in bytes (RFC 2866, section 3). */
  public static final int MAX_BYTES = 4095;

  private static final int REQUEST = 4;
  private static final int RESPONSE = 5;
  private static final int HEAD = 20;
  private static final int AUTHENTICATOR = 16;

  private static final int USER_NAME = 1;
  private static final int ADDRESS = 8;
  private static final int CLASS = 25;
  private static final int STATUS = 40;
  private static final int SESSION = 44;
  private static final int ADDRESS_V6 = 168;

  /**
   * Reads a packet and checks that the sender knows the secret; {@code answer} is what to send back
   * then.
   *
   * @param packet may have more bytes than the request says, which do not count
   * @throws InvalidDocument if it is no accounting request, or made with another secret
   */
  public static Accounting read(byte[] packet, byte[] secret) {
    if (packet.length < HEAD) {
      throw invalid(0, "at least " + HEAD + " bytes", packet.length + "");
    }
    int length = (packet[2] & 0xff) << 8 | packet[3] & 0xff;
    if (packet[0] != REQUEST) {
      throw invalid(0, "code " + REQUEST + ", an accounting request", (packet[0] & 0xff) + "");
    }
    if (length < HEAD || length > Math.min(packet.length, MAX_BYTES)) {
      throw invalid(2, HEAD + " to " + Math.min(packet.length, MAX_BYTES) + " bytes", length + "");
    }
    byte[] blank = Arrays.copyOf(packet, length);
    Arrays.fill(blank, 4, HEAD, (byte) 0);
    byte[] sent = Arrays.copyOfRange(packet, 4, HEAD);
    if (!MessageDigest.isEqual(sent, digest(blank, secret))) {
      throw invalid(4, "an authenticator made with the shared secret", "another");
    }
    Status status = null;
    String user = null;
    String session = null;
    String device = null;
    Address address = null;
    for (int at = HEAD; at < length; ) {
      int size = at + 1 < length ? packet[at + 1] & 0xff : 0;
      if (size < 2 || at + size > length) {
        throw invalid(at, "an attribute of 2 to " + (length - at) + " bytes", size + "");
      }
      byte[] value = Arrays.copyOfRange(packet, at + 2, at + size);
      switch (packet[at] & 0xff) {
        case USER_NAME -> user = text(value);
        case SESSION -> session = text(value);
        case CLASS -> {
          String said = text(value);
          device = said.startsWith(DEVICE) ? said.substring(DEVICE.length()) : device;
        }
        case STATUS -> status = Status.of(ByteBuffer.wrap(exactly(4, value, at)).getInt());
        case ADDRESS -> {
          long low = ByteBuffer.wrap(exactly(4, value, at)).getInt() & 0xffffffffL;
          address = new Address(Family.IPV4, 0, low);
        }
        case ADDRESS_V6 -> {
          ByteBuffer bytes = ByteBuffer.wrap(exactly(16, value, at));
          address = new Address(Family.IPV6, bytes.getLong(), bytes.getLong());
        }
        default -> {} // traffic counted, and the like
      }
      at += size;
    }
    if (status == null) {
      throw invalid(HEAD, "an Acct-Status-Type", "none");
    }
    return new Accounting(status, user, address, device, session, answer(packet[1], sent, secret));
  }

  private static InvalidDocument invalid(int at, String expected, String found) {
    return new InvalidDocument("byte " + at, expected, found);
  }

  private static byte[] exactly(int size, byte[] value, int at) {
    if (value.length != size) {
      throw invalid(at, "a value of " + size + " bytes", value.length + "");
    }
    return value;
  }

  private static String text(byte[] value) {
    return new String(value, StandardCharsets.UTF_8);
  }

  /** That the request was taken (RFC 2866, sections 3 and 4.2). */
  private static byte[] answer(byte identifier, byte[] request, byte[] secret) {
    byte[] out = new byte[HEAD];
    out[0] = RESPONSE;
    out[1] = identifier;
    out[3] = HEAD;
    System.arraycopy(request, 0, out, 4, AUTHENTICATOR);
    System.arraycopy(digest(out, secret), 0, out, 4, AUTHENTICATOR);
    return out;
  }

  /**
   * A request with a right authenticator, as network gear makes it.
   *
   * @param device null if nothing is to be said of it
   */
  public static byte[] request(
      int identifier,
      Status status,
      String user,
      Address address,
      String device,
      String session,
      byte[] secret) {
    ByteBuffer out = ByteBuffer.allocate(MAX_BYTES);
    out.put((byte) REQUEST).put((byte) identifier).position(HEAD);
    put(out, STATUS, ByteBuffer.allocate(4).putInt(status.number).array());
    put(out, USER_NAME, user.getBytes(StandardCharsets.UTF_8));
    put(out, SESSION, session.getBytes(StandardCharsets.UTF_8));
    if (device != null) {
      put(out, CLASS, (DEVICE + device).getBytes(StandardCharsets.UTF_8));
    }
    boolean v4 = address.family() == Family.IPV4;
    ByteBuffer bytes = ByteBuffer.allocate(v4 ? 4 : 16);
    bytes = v4 ? bytes.putInt((int) address.low()) : bytes.putLong(address.high());
    put(out, v4 ? ADDRESS : ADDRESS_V6, v4 ? bytes.array() : bytes.putLong(address.low()).array());
    int length = out.position();
    byte[] packet = Arrays.copyOf(out.putShort(2, (short) length).array(), length);
    System.arraycopy(digest(packet, secret), 0, packet, 4, AUTHENTICATOR);
    return packet;
  }

  private static void put(ByteBuffer out, int type, byte[] value) {
    out.put((byte) type).put((byte) (value.length + 2)).put(value);
  }

  private static byte[] digest(byte[] packet, byte[] secret) {
    try {
      MessageDigest md5 =
          MessageDigest.getInstance("MD5"); // the standard's; nothing else is spoken
      md5.update(packet);
      return md5.digest(secret);
    } catch (NoSuchAlgorithmException e) {
      throw new IllegalStateException("every Java platform has MD5", e);
    }
  }
}
