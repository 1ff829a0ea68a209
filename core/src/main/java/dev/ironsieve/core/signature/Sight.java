package dev.ironsieve.core.signature;

import java.util.List;

/**
 * The observed part of one connection: its transport, and the first bytes of either side. Protocol
 * fields are decoded when first used. Not for several threads.
 */
public final class Sight {
  /** Most bytes of a side that are looked at. */
  public static final int MAX_BYTES = 16 * 1024;

  private final int protocol;
  private final int port;
  private final byte[] client;
  private final byte[] server;
  private final List<byte[]> datagrams;
  private boolean parsed;
  private TlsHello tls;
  private HttpRequest http;
  private DnsQuestion dns;

  private Sight(int protocol, int port, byte[] client, byte[] server, List<byte[]> datagrams) {
    this.protocol = protocol;
    this.port = port;
    this.client = client;
    this.server = server;
    this.datagrams = datagrams;
  }

  /**
   * A connection of a protocol that has streams.
   *
   * @param protocol IP protocol number
   * @param port destination port, 0 where there is none
   * @param client first bytes of the opening side
   * @param server first bytes of the other side
   */
  public static Sight stream(int protocol, int port, byte[] client, byte[] server) {
    return new Sight(protocol, port, client, server, List.of());
  }

  /**
   * A connection of a protocol that has datagrams.
   *
   * @param client the first datagrams of the opening side
   * @param server the first datagram of the other side
   */
  public static Sight datagrams(int protocol, int port, List<byte[]> client, byte[] server) {
    byte[] first = client.isEmpty() ? new byte[0] : client.getFirst();
    return new Sight(protocol, port, first, server, List.copyOf(client));
  }

  public int protocol() {
    return protocol;
  }

  public int port() {
    return port;
  }

  /** The first bytes of the opening side, or its first datagram. */
  public byte[] client() {
    return client;
  }

  /** The first bytes of the other side, or its first datagram. */
  public byte[] server() {
    return server;
  }

  /** The ClientHello of the client, over a stream or in QUIC; null if there is none. */
  public TlsHello tls() {
    parse();
    return tls;
  }

  /** Null if it begins with no request of HTTP/1. */
  public HttpRequest http() {
    parse();
    return http;
  }

  /** Null if it begins with no question of DNS. */
  public DnsQuestion dns() {
    parse();
    return dns;
  }

  /** Whether the client's first datagram has the outside of QUIC. */
  boolean quic() {
    return !datagrams.isEmpty() && QuicInitial.looksLikeOne(client);
  }

  private void parse() {
    if (parsed) {
      return;
    }
    parsed = true;
    if (datagrams.isEmpty()) {
      tls = TlsHello.of(client, client.length);
      http = tls == null ? HttpRequest.of(client, client.length) : null;
      boolean whole =
          client.length > 2 && ((client[0] & 0xff) << 8 | client[1] & 0xff) == client.length - 2;
      dns = whole ? DnsQuestion.of(client, 2, client.length) : null;
    } else {
      tls = QuicInitial.of(datagrams);
      dns = tls == null ? DnsQuestion.of(client, 0, client.length) : null;
    }
  }
}
