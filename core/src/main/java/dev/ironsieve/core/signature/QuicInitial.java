package dev.ironsieve.core.signature;

import java.nio.charset.StandardCharsets;
import java.security.GeneralSecurityException;
import java.util.Arrays;
import java.util.HexFormat;
import java.util.List;
import javax.crypto.Cipher;
import javax.crypto.Mac;
import javax.crypto.spec.GCMParameterSpec;
import javax.crypto.spec.SecretKeySpec;

/**
 * Reads the TLS hello out of the first packets of a QUIC client. They are protected by keys that
 * follow from the connection id in them (RFC 9001, section 5.2; RFC 9369, section 3.3 for version
 * 2), so anyone on the way can read them.
 */
final class QuicInitial {
  /** The constants that differ between the versions. */
  private enum Version {
    V1(0x00000001, 0, "38762cf7f55934b34d179ae6a4c80cadccbb7f0a", "quic"),
    V2(0x6b3343cf, 1, "0dede3def700a6db819381be6e269dcbf9bd2ed9", "quicv2");

    final int number;
    final int initial; // type bits of an Initial packet
    final byte[] salt;
    final String label;

    Version(int number, int initial, String salt, String label) {
      this.number = number;
      this.initial = initial;
      this.salt = HexFormat.of().parseHex(salt);
      this.label = label;
    }
  }

  /** The keys of a client's Initial packets. */
  record Keys(byte[] key, byte[] iv, byte[] protection) {}

  private static final int SMALLEST = 1200; // of a client's first datagram: RFC 9000, 14.1
  private static final int MAX_ID = 20;
  private static final int SAMPLE = 16;
  private static final int TAG = 16;
  private static final int MAX_HELLO = 16 * 1024;

  private final byte[] hello = new byte[MAX_HELLO];
  private final boolean[] seen = new boolean[MAX_HELLO];

  private QuicInitial() {}

  /** The hello in the client's first datagrams; null if there is none or not all of it is here. */
  static TlsHello of(List<byte[]> datagrams) {
    if (datagrams.isEmpty() || !looksLikeOne(datagrams.getFirst())) {
      return null;
    }
    QuicInitial initial = new QuicInitial();
    Keys keys = null;
    for (byte[] datagram : datagrams) {
      Bytes in = new Bytes(datagram, 0, datagram.length);
      while (in.left() > 0 && !in.failed()) {
        try {
          keys = initial.packet(datagram, in, keys);
        } catch (GeneralSecurityException e) {
          break; // not protected by these keys: nothing that a client says first
        }
      }
      TlsHello found = initial.hello();
      if (found != null) {
        return found;
      }
    }
    return null;
  }

  /**
   * Whether a datagram has the outside of a client's first (RFC 8999; RFC 9000, section 17.2.2).
   */
  static boolean looksLikeOne(byte[] datagram) {
    if (datagram.length < SMALLEST || (datagram[0] & 0xc0) != 0xc0) {
      return false;
    }
    Version version = version((int) new Bytes(datagram, 1, 5).u32());
    return version != null && (datagram[0] >> 4 & 3) == version.initial;
  }

  private static Version version(int number) {
    for (Version version : Version.values()) {
      if (version.number == number) {
        return version;
      }
    }
    return null;
  }

  /** Reads one packet of a datagram and collects its part of the client hello. */
  private Keys packet(byte[] datagram, Bytes in, Keys known) throws GeneralSecurityException {
    int start = in.at();
    int first = in.u8();
    Version version = version((int) in.u32());
    byte[] to = in.copy(in.u8());
    in.skip(in.u8());
    if ((first & 0xc0) != 0xc0 || version == null || (first >> 4 & 3) != version.initial) {
      in.skip(in.left()); // another kind of packet: nothing of the hello follows
      return known;
    }
    in.skip(in.varint());
    long length = in.varint();
    int number = in.at();
    in.skip(length);
    if (in.failed() || to.length > MAX_ID || length < 4 + SAMPLE) {
      throw new GeneralSecurityException("no Initial packet");
    }
    // The server's answer changes the id, but not the keys.
    Keys keys = known == null ? keys(version, to) : known;
    byte[] mask = mask(keys, datagram, number + 4);
    byte[] header = Arrays.copyOfRange(datagram, start, number + 4);
    header[0] ^= (byte) (mask[0] & 0x0f);
    int size = (header[0] & 3) + 1;
    int packetNumber = 0;
    for (int i = 0; i < size; i++) {
      header[number - start + i] ^= mask[1 + i];
      packetNumber = packetNumber << 8 | header[number - start + i] & 0xff;
    }
    byte[] nonce = keys.iv.clone();
    for (int i = 0; i < 4; i++) {
      nonce[nonce.length - 1 - i] ^= (byte) (packetNumber >> 8 * i);
    }
    Cipher cipher = Cipher.getInstance("AES/GCM/NoPadding");
    cipher.init(
        Cipher.DECRYPT_MODE,
        new SecretKeySpec(keys.key, "AES"),
        new GCMParameterSpec(8 * TAG, nonce));
    cipher.updateAAD(header, 0, number - start + size);
    byte[] plain = cipher.doFinal(datagram, number + size, (int) length - size);
    frames(new Bytes(plain, 0, plain.length));
    return keys;
  }

  private static byte[] mask(Keys keys, byte[] datagram, int sample)
      throws GeneralSecurityException {
    Cipher cipher = Cipher.getInstance("AES/ECB/NoPadding");
    cipher.init(Cipher.ENCRYPT_MODE, new SecretKeySpec(keys.protection, "AES"));
    return cipher.doFinal(datagram, sample, SAMPLE);
  }

  /** The frames that an Initial packet may have (RFC 9000, section 17.2.2). */
  private void frames(Bytes in) {
    while (in.left() > 0 && !in.failed()) {
      long type = in.varint();
      if (type == 6) {
        long offset = in.varint();
        byte[] data = in.copy(in.varint());
        for (int i = 0; i < data.length && offset + i < MAX_HELLO; i++) {
          hello[(int) offset + i] = data[i];
          seen[(int) offset + i] = true;
        }
      } else if (type == 2 || type == 3) {
        in.varint();
        in.varint();
        long ranges = in.varint();
        in.varint();
        for (long i = 0; i < 2 * ranges && !in.failed(); i++) {
          in.varint();
        }
        for (int i = 0; i < 3 && type == 3; i++) {
          in.varint();
        }
      } else if (type > 1) {
        return; // the connection is closed, or this is no frame for here
      }
    }
  }

  private TlsHello hello() {
    int length = 0;
    while (length < MAX_HELLO && seen[length]) {
      length++;
    }
    return TlsHello.ofHandshake(hello, length);
  }

  private static Keys keys(Version version, byte[] id) throws GeneralSecurityException {
    byte[] initial = hmac(version.salt, id);
    byte[] client = expand(initial, "client in", 32);
    return new Keys(
        expand(client, version.label + " key", 16),
        expand(client, version.label + " iv", 12),
        expand(client, version.label + " hp", 16));
  }

  /** The keys of version 1 for a connection id, for the test vectors of RFC 9001, appendix A. */
  static Keys keys(byte[] id) throws GeneralSecurityException {
    return keys(Version.V1, id);
  }

  private static byte[] hmac(byte[] key, byte[] data) throws GeneralSecurityException {
    Mac mac = Mac.getInstance("HmacSHA256");
    mac.init(new SecretKeySpec(key, "HmacSHA256"));
    return mac.doFinal(data);
  }

  /** HKDF-Expand-Label of RFC 8446, section 7.1, for at most one block. */
  private static byte[] expand(byte[] secret, String label, int length)
      throws GeneralSecurityException {
    byte[] name = ("tls13 " + label).getBytes(StandardCharsets.US_ASCII);
    byte[] info = new byte[2 + 1 + name.length + 1 + 1];
    info[1] = (byte) length;
    info[2] = (byte) name.length;
    System.arraycopy(name, 0, info, 3, name.length);
    info[info.length - 1] = 1; // the one block's number, behind an empty context
    return Arrays.copyOf(hmac(secret, info), length);
  }
}
