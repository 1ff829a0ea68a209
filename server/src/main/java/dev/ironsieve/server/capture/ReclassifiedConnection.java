package dev.ironsieve.server.capture;

import dev.ironsieve.core.catalogue.Catalogue;
import dev.ironsieve.core.signature.Recogniser;
import dev.ironsieve.core.signature.Sight;
import dev.ironsieve.formats.capture.CapturedConnection;
import java.util.ArrayList;
import java.util.List;
import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * A connection of a capture or of the recent log that two editions of the catalogue recognise
 * differently.
 *
 * @param capture what the capture is called
 * @param before the use by the one; nothing if it does not recognise it
 * @param after the use by the other
 */
public record ReclassifiedConnection(
    @Schema(required = true) String capture,
    @Schema(required = true) String from,
    @Schema(required = true) String to,
    @Schema(required = true) String service,
    String before,
    String after) {
  private static final int MOST = 200;

  /** The first {@value #MOST} of them, in the order of the captures. */
  static List<ReclassifiedConnection> between(
      Catalogue before, Catalogue after, List<Capture> captures) {
    Recogniser old = new Recogniser(before.signatures());
    Recogniser next = new Recogniser(after.signatures());
    List<ReclassifiedConnection> out = new ArrayList<>();
    for (Capture kept : captures) {
      for (NumberedConnection seen : kept.connections()) {
        CapturedConnection c = seen.connection();
        String was = use(old, c.sight());
        String is = use(next, c.sight());
        if (out.size() < MOST && (was == null ? is != null : !was.equals(is))) {
          out.add(
              new ReclassifiedConnection(
                  kept.name(),
                  c.from().toString(),
                  c.to().toString(),
                  c.service().toString(),
                  was,
                  is));
        }
      }
    }
    return out;
  }

  private static String use(Recogniser recogniser, Sight sight) {
    return recogniser.recognise(sight).map(found -> found.meant().use()).orElse(null);
  }
}
