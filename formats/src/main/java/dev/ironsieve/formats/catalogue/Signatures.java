package dev.ironsieve.formats.catalogue;

import dev.ironsieve.core.model.ServiceLiteral;
import dev.ironsieve.core.signature.BytePattern;
import dev.ironsieve.core.signature.Condition;
import dev.ironsieve.core.signature.Condition.Side;
import dev.ironsieve.core.signature.Condition.Speaks.Protocol;
import dev.ironsieve.core.signature.Condition.Where;
import dev.ironsieve.core.signature.HostPattern;
import dev.ironsieve.core.signature.Signature;
import dev.ironsieve.formats.Checked;
import dev.ironsieve.formats.InvalidDocument;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.function.Function;

/** Converts signatures to documents and back. */
public final class Signatures {
  private final String path;
  private final List<Condition> conditions = new ArrayList<>();

  private Signatures(String path) {
    this.path = path;
  }

  /** Reads one signature; throws {@link InvalidDocument} with paths below {@code path}. */
  public static Signature read(SignatureDocument d, String path) {
    if (d == null) {
      throw new InvalidDocument(path, "a signature", "nothing");
    }
    Signatures s = new Signatures(path);
    if (d.services() != null) {
      List<ServiceLiteral> services = new ArrayList<>();
      for (String text : d.services()) {
        String at = path + ".services[" + services.size() + "]";
        if (text == null) {
          throw new InvalidDocument(at, "a service such as tcp/443", "nothing");
        }
        services.add(Checked.at(at, () -> ServiceLiteral.parse(text)));
      }
      s.conditions.add(new Condition.OnService(services));
    }
    s.add("speaks", d.speaks(), text -> new Condition.Speaks(s.protocol(text)));
    s.add("client", d.client(), t -> new Condition.Starts(Side.CLIENT, BytePattern.parse(t)));
    s.add("server", d.server(), t -> new Condition.Starts(Side.SERVER, BytePattern.parse(t)));
    s.add("clientPattern", d.clientPattern(), t -> Condition.Finds.of(Side.CLIENT, t));
    s.add("serverPattern", d.serverPattern(), t -> Condition.Finds.of(Side.SERVER, t));
    s.add("tlsName", d.tlsName(), t -> new Condition.Names(Where.TLS, HostPattern.parse(t)));
    s.add("alpn", d.alpn(), Condition.Offers::new);
    s.add("httpMethod", d.httpMethod(), Condition.Asks::new);
    s.add("httpHost", d.httpHost(), t -> new Condition.Names(Where.HTTP, HostPattern.parse(t)));
    s.add("httpPath", d.httpPath(), Condition.Path::new);
    s.add("httpField", d.httpField(), s::field);
    s.add("dnsName", d.dnsName(), t -> new Condition.Names(Where.DNS, HostPattern.parse(t)));
    return Checked.at(path, () -> new Signature(d.feature(), s.conditions));
  }

  private void add(String member, String text, Function<String, Condition> made) {
    if (text != null) {
      conditions.add(Checked.at(path + "." + member, () -> made.apply(text)));
    }
  }

  private Protocol protocol(String text) {
    return Arrays.stream(Protocol.values())
        .filter(protocol -> protocol.name().equals(text))
        .findFirst()
        .orElseThrow(
            () ->
                new InvalidDocument(path + ".speaks", "TLS, HTTP, DNS or QUIC", '"' + text + '"'));
  }

  private Condition field(String text) {
    int colon = text.indexOf(':');
    if (colon <= 0) {
      throw new InvalidDocument(path + ".httpField", "name: value", '"' + text + '"');
    }
    return new Condition.Field(text.substring(0, colon), text.substring(colon + 1).strip());
  }

  static SignatureDocument write(Signature signature) {
    return new SignatureDocument(
        signature.feature(),
        of(
            signature,
            Condition.OnService.class,
            c -> c.services().stream().map(ServiceLiteral::toString).toList()),
        of(signature, Condition.Speaks.class, c -> c.protocol().name()),
        starts(signature, Side.CLIENT),
        starts(signature, Side.SERVER),
        finds(signature, Side.CLIENT),
        finds(signature, Side.SERVER),
        names(signature, Where.TLS),
        of(signature, Condition.Offers.class, Condition.Offers::protocol),
        of(signature, Condition.Asks.class, Condition.Asks::method),
        names(signature, Where.HTTP),
        of(signature, Condition.Path.class, Condition.Path::prefix),
        of(signature, Condition.Field.class, c -> c.name() + ": " + c.value()),
        names(signature, Where.DNS));
  }

  private static <C extends Condition, T> T of(
      Signature signature, Class<C> kind, Function<C, T> told) {
    return signature.conditions().stream()
        .filter(kind::isInstance)
        .map(kind::cast)
        .map(told)
        .filter(text -> text != null)
        .findFirst()
        .orElse(null);
  }

  private static String starts(Signature signature, Side side) {
    return of(
        signature, Condition.Starts.class, c -> c.side() == side ? c.bytes().toString() : null);
  }

  private static String finds(Signature signature, Side side) {
    return of(signature, Condition.Finds.class, c -> c.side() == side ? c.pattern() : null);
  }

  private static String names(Signature signature, Where where) {
    return of(
        signature, Condition.Names.class, c -> c.where() == where ? c.host().toString() : null);
  }
}
