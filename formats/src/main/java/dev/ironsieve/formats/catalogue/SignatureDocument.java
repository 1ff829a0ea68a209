package dev.ironsieve.formats.catalogue;

import java.util.List;

/**
 * A signature: each member is a condition on a connection, and all of them have to hold.
 *
 * @param feature the recognised feature; the application in general if left out
 * @param services alternatives such as {@code tcp/443}
 * @param speaks {@code TLS}, {@code HTTP}, {@code DNS} or {@code QUIC}, in the client's first bytes
 * @param client first bytes of the client, such as {@code @4: 21 12 a4 ??}
 * @param server first bytes of the server
 * @param clientPattern a regular expression of RE2 for the client's first bytes
 * @param serverPattern the same for the server's
 * @param tlsName the server that the client asks for in TLS or QUIC, exact or behind {@code *.}
 * @param alpn a protocol that it offers there
 * @param httpMethod of the first request
 * @param httpHost of the first request
 * @param httpPath the beginning of its path
 * @param httpField a field of it, such as {@code upgrade: websocket}
 * @param dnsName of the first question
 */
public record SignatureDocument(
    String feature,
    List<String> services,
    String speaks,
    String client,
    String server,
    String clientPattern,
    String serverPattern,
    String tlsName,
    String alpn,
    String httpMethod,
    String httpHost,
    String httpPath,
    String httpField,
    String dnsName) {}
