package dev.ironsieve.core.signature;

import java.io.ByteArrayOutputStream;
import java.nio.charset.StandardCharsets;
import java.util.Random;

/** Writes what TLS clients say first. */
final class Hello {
  private Hello() {}

  /**
   * A ClientHello without records, with an extension of {@code padding} bytes before the others.
   */
  static byte[] message(String name, int padding, String... protocols) {
    ByteArrayOutputStream extensions = new ByteArrayOutputStream();
    extension(extensions, 21, new byte[padding]);
    ByteArrayOutputStream names = new ByteArrayOutputStream();
    names.write(0);
    sized(names, name.getBytes(StandardCharsets.US_ASCII));
    ByteArrayOutputStream list = new ByteArrayOutputStream();
    sized(list, names.toByteArray());
    extension(extensions, 0, list.toByteArray());
    ByteArrayOutputStream offers = new ByteArrayOutputStream();
    for (String protocol : protocols) {
      offers.write(protocol.length());
      offers.writeBytes(protocol.getBytes(StandardCharsets.US_ASCII));
    }
    ByteArrayOutputStream alpn = new ByteArrayOutputStream();
    sized(alpn, offers.toByteArray());
    extension(extensions, 16, alpn.toByteArray());
    ByteArrayOutputStream body = new ByteArrayOutputStream();
    body.write(3);
    body.write(3);
    byte[] random = new byte[32];
    new Random(name.hashCode()).nextBytes(random);
    body.writeBytes(random);
    body.write(32);
    body.writeBytes(random);
    sized(body, new byte[] {0x13, 1, 0x13, 2});
    body.write(1);
    body.write(0);
    sized(body, extensions.toByteArray());
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    out.write(1);
    out.write(0);
    sized(out, body.toByteArray());
    return out.toByteArray();
  }

  /** The same in records of at most {@code size} bytes. */
  static byte[] records(byte[] message, int size) {
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    for (int at = 0; at < message.length; at += size) {
      int length = Math.min(size, message.length - at);
      out.writeBytes(new byte[] {22, 3, 1, (byte) (length >> 8), (byte) length});
      out.write(message, at, length);
    }
    return out.toByteArray();
  }

  private static void extension(ByteArrayOutputStream out, int type, byte[] data) {
    out.write(type >> 8);
    out.write(type);
    sized(out, data);
  }

  private static void sized(ByteArrayOutputStream out, byte[] data) {
    out.write(data.length >> 8);
    out.write(data.length);
    out.writeBytes(data);
  }
}
