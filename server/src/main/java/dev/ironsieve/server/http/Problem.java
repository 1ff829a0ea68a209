package dev.ironsieve.server.http;

import dev.ironsieve.formats.Fault;
import dev.ironsieve.server.refusal.Refusal;
import java.util.List;
import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * A problem document (RFC 9457): the answer to a request that cannot be served.
 *
 * @param faults the invalid parts of the request, with places, if that is the reason
 * @param conflict the change of another person, if that is the reason
 */
@Schema(name = "Problem")
public record Problem(
    String title, int status, String detail, List<Fault> faults, Refusal.OtherChange conflict) {

  static Problem of(int status, String detail) {
    return new Problem(title(status), status, detail, null, null);
  }

  static Problem invalid(int status, List<Fault> faults) {
    return new Problem(title(status), status, faults.getFirst().toString(), faults, null);
  }

  static Problem of(Refusal refusal) {
    String detail = refusal.getMessage();
    return switch (refusal) {
      case Refusal.NotSignedIn r -> of(401, detail);
      case Refusal.NotAllowed r -> of(403, detail);
      case Refusal.NotFound r -> of(404, detail);
      case Refusal.WrongState r -> of(409, detail);
      case Refusal.EditConflict r -> new Problem(title(409), 409, detail, null, r.other());
      case Refusal.TooLarge r -> of(413, detail);
      case Refusal.Invalid r -> invalid(422, r.faults());
      case Refusal.Busy r -> of(r.client() ? 429 : 503, detail);
    };
  }

  static String title(int status) {
    return switch (status) {
      case 400 -> "Malformed request";
      case 401 -> "Not signed in";
      case 403 -> "Not allowed";
      case 404 -> "Not found";
      case 409 -> "Conflict";
      case 413 -> "Too large";
      case 415 -> "Unknown media type";
      case 422 -> "Invalid content";
      case 429 -> "Too many requests";
      case 503 -> "Not available now";
      default -> status >= 500 ? "The server failed" : "Refused";
    };
  }
}
