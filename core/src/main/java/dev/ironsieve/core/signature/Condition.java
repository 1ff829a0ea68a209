package dev.ironsieve.core.signature;

import com.google.re2j.Pattern;
import com.google.re2j.PatternSyntaxException;
import dev.ironsieve.core.model.InvalidModel;
import dev.ironsieve.core.model.ServiceLiteral;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Locale;

/** A condition of a signature on a connection. */
public sealed interface Condition {
  /** A side of a connection. */
  enum Side {
    CLIENT,
    SERVER;

    byte[] of(Sight sight) {
      return this == CLIENT ? sight.client() : sight.server();
    }

    String word() {
      return name().toLowerCase(Locale.ROOT);
    }
  }

  /** Where host names stand. */
  enum Where {
    TLS("TLS server name"),
    HTTP("HTTP host"),
    DNS("DNS question");

    private final String words;

    Where(String words) {
      this.words = words;
    }

    String of(Sight sight) {
      return switch (this) {
        case TLS -> sight.tls() == null ? null : sight.tls().name();
        case HTTP -> sight.http() == null ? null : sight.http().host();
        case DNS -> sight.dns() == null ? null : sight.dns().name();
      };
    }
  }

  /** The part of the connection that fulfils this, in words; null if none does. */
  String evidence(Sight sight);

  /** The weight of this: of two signatures that hold, the one with the greater sum wins. */
  int weight();

  /** The transport is one of some services; source ports do not count. */
  record OnService(List<ServiceLiteral> services) implements Condition {
    private static final int ONE = 10;
    private static final int MANY = 5;

    public OnService {
      services = List.copyOf(services);
    }

    @Override
    public String evidence(Sight sight) {
      for (ServiceLiteral service : services) {
        if (service.protocol() == sight.protocol()
            && service.firstDetail() <= sight.port()
            && sight.port() <= service.lastDetail()) {
          return "service " + service;
        }
      }
      return null;
    }

    @Override
    public int weight() {
      boolean one = services.stream().allMatch(s -> s.firstDetail() == s.lastDetail());
      return one ? ONE : MANY;
    }
  }

  /** A side begins with some bytes. */
  record Starts(Side side, BytePattern bytes) implements Condition {
    @Override
    public String evidence(Sight sight) {
      byte[] from = side.of(sight);
      return bytes.holds(from, from.length) ? side.word() + " sends " + bytes : null;
    }

    @Override
    public int weight() {
      return bytes.weight();
    }
  }

  /** A pattern is found in the first bytes of a side, each of which counts as one character. */
  record Finds(Side side, String pattern, Pattern compiled) implements Condition {
    private static final int MAX_PATTERN = 1000;
    private static final int MAX_SEARCHED = 2048;
    private static final int WEIGHT = 100;

    /** Throws {@link InvalidModel} if it is no pattern of RE2. */
    public static Finds of(Side side, String pattern) {
      if (pattern.isEmpty() || pattern.length() > MAX_PATTERN) {
        throw new InvalidModel(
            "pattern", "1 to " + MAX_PATTERN + " characters", pattern.length() + "");
      }
      try {
        return new Finds(side, pattern, Pattern.compile(pattern, Pattern.DOTALL));
      } catch (PatternSyntaxException e) {
        throw new InvalidModel(
            "pattern", "a regular expression of RE2", e.getDescription() + " in " + e.getPattern());
      }
    }

    @Override
    public String evidence(Sight sight) {
      byte[] from = side.of(sight);
      int length = Math.min(from.length, MAX_SEARCHED);
      String text = new String(from, 0, length, StandardCharsets.ISO_8859_1);
      return compiled.matcher(text).find() ? side.word() + " sends what fits " + pattern : null;
    }

    @Override
    public int weight() {
      return WEIGHT;
    }

    @Override
    public boolean equals(Object o) {
      return o instanceof Finds other && side == other.side && pattern.equals(other.pattern);
    }

    @Override
    public int hashCode() {
      return 31 * side.hashCode() + pattern.hashCode();
    }
  }

  /** A host name occurs in one place of the connection. */
  record Names(Where where, HostPattern host) implements Condition {
    @Override
    public String evidence(Sight sight) {
      String said = where.of(sight);
      return said != null && host.covers(said) ? where.words + " " + said : null;
    }

    @Override
    public int weight() {
      return host.weight();
    }
  }

  /** The client offers a protocol in TLS. */
  record Offers(String protocol) implements Condition {
    private static final int WEIGHT = 150;

    @Override
    public String evidence(Sight sight) {
      TlsHello tls = sight.tls();
      return tls != null && tls.protocols().contains(protocol) ? "TLS offers " + protocol : null;
    }

    @Override
    public int weight() {
      return WEIGHT;
    }
  }

  /** The first request of HTTP/1 has a method. */
  record Asks(String method) implements Condition {
    private static final int WEIGHT = 50;

    @Override
    public String evidence(Sight sight) {
      HttpRequest http = sight.http();
      return http != null && http.method().equals(method) ? "HTTP method " + method : null;
    }

    @Override
    public int weight() {
      return WEIGHT;
    }
  }

  /** The path of the first request of HTTP/1 begins with some text. */
  record Path(String prefix) implements Condition {
    private static final int WEIGHT = 300;

    @Override
    public String evidence(Sight sight) {
      HttpRequest http = sight.http();
      return http != null && http.path().startsWith(prefix) ? "HTTP path " + http.path() : null;
    }

    @Override
    public int weight() {
      return WEIGHT + prefix.length();
    }
  }

  /** A field of the first request of HTTP/1 has a value that begins with some text, any case. */
  record Field(String name, String value) implements Condition {
    private static final int WEIGHT = 200;

    public Field {
      name = name.toLowerCase(Locale.ROOT);
    }

    @Override
    public String evidence(Sight sight) {
      HttpRequest http = sight.http();
      String start = name + ": " + value;
      return http == null
          ? null
          : http.fields().stream()
              .filter(field -> field.regionMatches(true, 0, start, 0, start.length()))
              .map(field -> "HTTP field " + field)
              .findFirst()
              .orElse(null);
    }

    @Override
    public int weight() {
      return WEIGHT;
    }
  }

  /** The client speaks one of the protocols that this package reads. */
  record Speaks(Protocol protocol) implements Condition {
    private static final int WEIGHT = 40;

    /** A protocol whose beginning is read here. */
    public enum Protocol {
      TLS,
      HTTP,
      DNS,
      QUIC
    }

    @Override
    public String evidence(Sight sight) {
      boolean speaks =
          switch (protocol) {
            case TLS -> sight.tls() != null && !sight.quic();
            case HTTP -> sight.http() != null;
            case DNS -> sight.dns() != null;
            case QUIC -> sight.quic();
          };
      return speaks ? "client speaks " + protocol : null;
    }

    @Override
    public int weight() {
      return WEIGHT;
    }
  }
}
