package dev.ironsieve.server.capture;

import dev.ironsieve.core.signature.MovedFile;
import dev.ironsieve.core.signature.Recognised;
import dev.ironsieve.core.signature.Recogniser;
import dev.ironsieve.core.signature.Signature;
import dev.ironsieve.core.signature.Trial;
import dev.ironsieve.formats.capture.CapturedConnection;
import dev.ironsieve.formats.catalogue.SignatureDocument;
import dev.ironsieve.formats.catalogue.Signatures;
import dev.ironsieve.server.account.Role;
import dev.ironsieve.server.capture.KeptCaptures.Kept;
import dev.ironsieve.server.catalogue.Editions;
import dev.ironsieve.server.http.Problem;
import jakarta.annotation.security.RolesAllowed;
import jakarta.ws.rs.Consumes;
import jakarta.ws.rs.DefaultValue;
import jakarta.ws.rs.GET;
import jakarta.ws.rs.POST;
import jakarta.ws.rs.Path;
import jakarta.ws.rs.QueryParam;
import jakarta.ws.rs.core.MediaType;
import java.util.Arrays;
import java.util.HexFormat;
import java.util.List;
import org.eclipse.microprofile.openapi.annotations.media.Schema;

/** Captures, and what the signatures of an edition make of their connections. */
@Path("/api/captures")
@RolesAllowed(Role.MAY_VIEW)
public class CaptureResource {
  private static final int SHOWN_BYTES = 96;
  private static final int MOST_ROWS = 5000;

  private final KeptCaptures captures;
  private final Editions editions;

  CaptureResource(KeptCaptures captures, Editions editions) {
    this.captures = captures;
    this.editions = editions;
  }

  /** One capture in the list. */
  public record ListedCapture(
      @Schema(required = true) long id,
      @Schema(required = true) String name,
      @Schema(required = true) long packets,
      @Schema(required = true) int connections) {}

  /**
   * A capture, recognised.
   *
   * @param remarks what of it could not be read
   * @param connections the first {@value #MOST_ROWS}
   */
  public record RecognisedCapture(
      @Schema(required = true) long id,
      @Schema(required = true) String name,
      @Schema(required = true) List<String> remarks,
      @Schema(required = true) List<RecognisedConnection> connections) {}

  /**
   * One connection.
   *
   * @param application as rules name it; nothing if it is not recognised
   * @param evidence what of the connection decided
   * @param others what wider signatures take it for
   * @param files what it moves, as far as that is seen
   * @param client its first bytes, hexadecimal
   * @param server the first bytes of the other side
   */
  public record RecognisedConnection(
      @Schema(required = true) String from,
      @Schema(required = true) String to,
      @Schema(required = true) String service,
      @Schema(required = true) long packets,
      String application,
      @Schema(required = true) List<String> evidence,
      @Schema(required = true) List<String> others,
      @Schema(required = true) List<SeenFile> files,
      @Schema(required = true) String client,
      @Schema(required = true) String server) {}

  /**
   * A file that a connection moves.
   *
   * @param direction {@code upload} or {@code download}
   * @param name nothing if none is said
   * @param kind as rules name it
   * @param evidence what told the kind
   */
  public record SeenFile(
      @Schema(required = true) String direction,
      String name,
      @Schema(required = true) String kind,
      @Schema(required = true) String evidence) {
    static SeenFile of(MovedFile file) {
      return new SeenFile(file.direction().word(), file.name(), file.kind(), file.evidence());
    }
  }

  /**
   * A signature to try beside those of an edition.
   *
   * @param application the application that it tells
   */
  public record Trying(
      @Schema(required = true) String edition,
      @Schema(required = true) String application,
      @Schema(required = true) SignatureDocument signature) {}

  /**
   * What a signature recognises.
   *
   * @param holds places of the connections for which it holds, from 0
   * @param meant places of those that would be taken for its application
   * @param taken places of those of these that are taken for something else now
   */
  public record Tried(
      @Schema(required = true) List<Integer> holds,
      @Schema(required = true) List<Integer> meant,
      @Schema(required = true) List<Integer> taken) {}

  @GET
  public List<ListedCapture> list() {
    return captures.all().stream().map(CaptureResource::listed).toList();
  }

  private static ListedCapture listed(Kept kept) {
    return new ListedCapture(kept.id(), kept.name(), kept.packets(), kept.connections().size());
  }

  /**
   * Reads a capture, pcap or pcapng. It is kept in memory only.
   *
   * @param name what to call it
   */
  @POST
  @Consumes(MediaType.WILDCARD)
  @RolesAllowed(Role.MAY_EDIT)
  public ListedCapture read(
      @QueryParam("name") @DefaultValue("capture") String name,
      @Schema(implementation = Object.class) byte[] capture) {
    return listed(captures.capture(captures.add(name, capture)));
  }

  @GET
  @Path("/{capture}")
  public RecognisedCapture recognised(long capture, @QueryParam("edition") String edition) {
    if (edition == null) {
      throw Problem.invalid("edition", "the name of an edition of the catalogue", "nothing");
    }
    Kept kept = captures.capture(capture);
    Recogniser recogniser = new Recogniser(editions.edition(edition).signatures());
    return new RecognisedCapture(
        kept.id(),
        kept.name(),
        kept.remarks(),
        kept.connections().stream().limit(MOST_ROWS).map(c -> told(c, recogniser)).toList());
  }

  private static RecognisedConnection told(CapturedConnection c, Recogniser recogniser) {
    Recognised found = recogniser.recognise(c.sight()).orElse(null);
    return new RecognisedConnection(
        c.from().toString(),
        c.to().toString(),
        c.service().toString(),
        c.packets(),
        found == null ? null : found.meant().use(),
        found == null ? List.of() : found.evidence(),
        found == null
            ? List.of()
            : found.others().stream().map(Recogniser.Named::use).distinct().toList(),
        MovedFile.in(c.sight()).stream().map(SeenFile::of).toList(),
        hex(c.sight().client()),
        hex(c.sight().server()));
  }

  private static String hex(byte[] bytes) {
    int length = Math.min(bytes.length, SHOWN_BYTES);
    return HexFormat.ofDelimiter(" ").formatHex(Arrays.copyOf(bytes, length));
  }

  /** What a signature would make of a capture; nothing is changed. */
  @POST
  @Path("/{capture}/try")
  public Tried attempt(long capture, Trying body) {
    Problem.requireBody(body);
    if (body.application() == null || body.application().isBlank()) {
      throw Problem.invalid("$.application", "the name of an application", "nothing");
    }
    if (body.edition() == null) {
      throw Problem.invalid("$.edition", "the name of an edition of the catalogue", "nothing");
    }
    Signature signature = Signatures.read(body.signature(), "$.signature");
    Trial trial =
        Trial.of(
            editions.edition(body.edition()).signatures(),
            new Recogniser.Named(body.application(), signature),
            captures.capture(capture).connections().stream()
                .limit(MOST_ROWS)
                .map(CapturedConnection::sight)
                .toList());
    return new Tried(trial.holds(), trial.meant(), trial.taken());
  }
}
