package dev.ironsieve.core.signature;

import java.util.ArrayList;
import java.util.List;

/**
 * The ClientHello of a TLS client (RFC 8446, section 4.1.2).
 *
 * @param name the server that it asks for (RFC 6066, section 3), in lower case; null if it does not
 * @param protocols what it offers to speak inside (RFC 7301, section 3.1)
 */
public record TlsHello(String name, List<String> protocols) {
  private static final int HANDSHAKE = 22;
  private static final int CLIENT_HELLO = 1;
  private static final int SERVER_NAME = 0;
  private static final int ALPN = 16;
  private static final int RANDOM = 32;
  private static final int MAX_RECORD = 1 << 14;

  /** The hello at the start of a stream, over as many records as it takes; null if it is none. */
  static TlsHello of(byte[] stream, int length) {
    if (length == 0 || stream[0] != HANDSHAKE) {
      return null;
    }
    Bytes in = new Bytes(stream, 0, length);
    byte[] hello = new byte[length]; // what the records hold is shorter than they
    int held = 0;
    while (in.left() > 5) {
      int type = in.u8();
      int major = in.u8();
      in.u8();
      int size = in.u16();
      if (type != HANDSHAKE || major != 3 || size == 0 || size > MAX_RECORD) {
        return null;
      }
      byte[] record = in.copy(Math.min(size, in.left()));
      System.arraycopy(record, 0, hello, held, record.length);
      held += record.length;
      TlsHello found = ofHandshake(hello, held);
      if (found != null || hello[0] != CLIENT_HELLO) {
        return found;
      }
    }
    return null;
  }

  /** A hello without records around it, as QUIC carries it; null if it is none or not whole. */
  static TlsHello ofHandshake(byte[] message, int length) {
    Bytes in = new Bytes(message, 0, length);
    if (in.u8() != CLIENT_HELLO) {
      return null;
    }
    Bytes body = in.slice(in.u24());
    body.u16();
    body.skip(RANDOM);
    body.skip(body.u8());
    body.skip(body.u16());
    body.skip(body.u8());
    if (in.failed() || body.failed()) {
      return null;
    }
    String name = null;
    List<String> protocols = new ArrayList<>();
    Bytes extensions = body.left() == 0 ? body : body.slice(body.u16());
    while (extensions.left() > 0) {
      int type = extensions.u16();
      Bytes extension = extensions.slice(extensions.u16());
      if (type == SERVER_NAME) {
        name = name(extension.slice(extension.u16()));
      } else if (type == ALPN) {
        Bytes list = extension.slice(extension.u16());
        while (list.left() > 0) {
          String protocol = list.slice(list.u8()).text();
          if (protocol != null && !protocol.isEmpty()) {
            protocols.add(protocol);
          }
        }
      }
    }
    return extensions.failed() || body.failed() ? null : new TlsHello(name, List.copyOf(protocols));
  }

  private static String name(Bytes list) {
    while (list.left() > 0) {
      int type = list.u8();
      Bytes name = list.slice(list.u16());
      if (type == 0) {
        String text = name.text();
        return text == null || text.isEmpty() ? null : HostPattern.normal(text);
      }
    }
    return null;
  }
}
