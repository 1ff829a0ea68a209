package dev.ironsieve.server.capture;

import dev.ironsieve.core.signature.MovedFile;
import dev.ironsieve.core.signature.Recognised;
import dev.ironsieve.core.signature.Recogniser;
import dev.ironsieve.core.signature.Sight;
import dev.ironsieve.core.signature.Signature;
import dev.ironsieve.core.signature.Trial;
import dev.ironsieve.formats.capture.CapturedConnection;
import dev.ironsieve.formats.catalogue.SignatureDocument;
import dev.ironsieve.formats.catalogue.Signatures;
import dev.ironsieve.server.account.Role;
import dev.ironsieve.server.catalogue.CatalogueEditions;
import dev.ironsieve.server.refusal.Refusal;
import jakarta.annotation.security.RolesAllowed;
import jakarta.ws.rs.Consumes;
import jakarta.ws.rs.DefaultValue;
import jakarta.ws.rs.GET;
import jakarta.ws.rs.POST;
import jakarta.ws.rs.Path;
import jakarta.ws.rs.QueryParam;
import jakarta.ws.rs.core.MediaType;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HexFormat;
import java.util.List;
import java.util.Locale;
import org.eclipse.microprofile.openapi.annotations.media.Schema;

/** Captures and the recent log, and what the signatures of an edition make of their connections. */
@Path("/api/captures")
@RolesAllowed(Role.MAY_VIEW)
public class CaptureResource {
  private static final int SHOWN_BYTES = 96;
  private static final int MOST_ROWS = 5000;
  private static final int MOST_RECENT = 2000;

  private final CaptureMemory captures;
  private final RecentLog recent;
  private final CatalogueEditions editions;

  CaptureResource(CaptureMemory captures, RecentLog recent, CatalogueEditions editions) {
    this.captures = captures;
    this.recent = recent;
    this.editions = editions;
  }

  /**
   * One capture in the list, or the recent log.
   *
   * @param kind {@code sample}, {@code brought} or {@code recent}
   * @param newest the number of the newest connection; of the recent log, it grows
   */
  public record CaptureSummary(
      @Schema(required = true) long id,
      @Schema(required = true) String name,
      @Schema(required = true) String kind,
      @Schema(required = true) long packets,
      @Schema(required = true) int connections,
      @Schema(required = true) long newest) {}

  /**
   * A capture, recognised.
   *
   * @param remarks what of it could not be read
   * @param connections the first {@value #MOST_ROWS}, or the newest {@value #MOST_RECENT} of the
   *     recent log
   */
  public record RecognisedCapture(
      @Schema(required = true) long id,
      @Schema(required = true) String name,
      @Schema(required = true) List<String> remarks,
      @Schema(required = true) List<RecognisedConnection> connections) {}

  /**
   * One connection.
   *
   * @param number tells it from the others
   * @param at when it was heard of; nothing in a capture
   * @param application as rules name it; nothing if it is not recognised
   * @param evidence what of the connection decided
   * @param others what wider signatures take it for
   * @param files what it moves, as far as that is seen
   * @param client its first bytes, hexadecimal
   * @param server the first bytes of the other side
   */
  public record RecognisedConnection(
      @Schema(required = true) long number,
      Instant at,
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
   * @param name left out if unknown
   * @param kind the file kind of the vocabulary
   * @param evidence the reason for the kind
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
   * @param holds numbers of the connections for which it holds
   * @param meant numbers of those that would be taken for its application
   * @param taken numbers of those of these that are taken for something else now
   * @param mistakes what else it would take, in the samples that ship
   */
  public record Tried(
      @Schema(required = true) List<Long> holds,
      @Schema(required = true) List<Long> meant,
      @Schema(required = true) List<Long> taken,
      @Schema(required = true) List<Mistake> mistakes) {}

  /**
   * A connection of a sample that a signature would take from the application that it is.
   *
   * @param sample what the capture is called
   * @param application what the connection is
   */
  public record Mistake(
      @Schema(required = true) String sample,
      @Schema(required = true) String from,
      @Schema(required = true) String to,
      @Schema(required = true) String service,
      @Schema(required = true) String application) {}

  /** The recent log, and then the captures. */
  @GET
  public List<CaptureSummary> list() {
    List<CaptureSummary> out = new ArrayList<>();
    out.add(listed(recent.until(Long.MAX_VALUE, Integer.MAX_VALUE)));
    captures.all().forEach(kept -> out.add(listed(kept)));
    return out;
  }

  private static CaptureSummary listed(Capture kept) {
    return new CaptureSummary(
        kept.id(),
        kept.name(),
        kept.kind().name().toLowerCase(Locale.ROOT),
        kept.packets(),
        kept.connections().size(),
        kept.connections().stream().mapToLong(NumberedConnection::number).max().orElse(0));
  }

  /**
   * Reads a capture, pcap or pcapng. It is kept in memory only.
   *
   * @param name what to call it
   */
  @POST
  @Consumes(MediaType.WILDCARD)
  @RolesAllowed(Role.MAY_EDIT)
  public CaptureSummary read(
      @QueryParam("name") @DefaultValue("capture") String name,
      @Schema(implementation = Object.class) byte[] capture) {
    return listed(captures.add(name, capture));
  }

  /**
   * Takes the next few seconds of what a tap sees, pcap or pcapng, into the recent log. A
   * connection may go through several of them.
   *
   * @param tap what the place is called at which they were seen
   */
  @POST
  @Path("/recent")
  @Consumes(MediaType.WILDCARD)
  @RolesAllowed(Role.MAY_EDIT)
  public RecentLog.Heard hear(
      @QueryParam("tap") @DefaultValue("tap") String tap,
      @Schema(implementation = Object.class) byte[] piece) {
    return recent.read(tap, piece);
  }

  /**
   * What the connections are.
   *
   * @param capture 0 for the recent log
   * @param upTo of the recent log, the number of the newest connection that is asked for
   */
  @GET
  @Path("/{capture}")
  public RecognisedCapture recognised(
      long capture, @QueryParam("edition") String edition, @QueryParam("upTo") Long upTo) {
    if (edition == null) {
      throw new Refusal.Invalid("edition", "the name of an edition of the catalogue", "nothing");
    }
    Capture kept = kept(capture, upTo);
    Recogniser recogniser = new Recogniser(editions.edition(edition).signatures());
    return new RecognisedCapture(
        kept.id(),
        kept.name(),
        kept.remarks(),
        kept.connections().stream().limit(MOST_ROWS).map(c -> told(c, recogniser)).toList());
  }

  private Capture kept(long capture, Long upTo) {
    return capture == Capture.RECENT
        ? recent.until(upTo == null ? Long.MAX_VALUE : upTo, MOST_RECENT)
        : captures.capture(capture);
  }

  private static RecognisedConnection told(NumberedConnection seen, Recogniser recogniser) {
    CapturedConnection c = seen.connection();
    Recognised found = recogniser.recognise(c.sight()).orElse(null);
    return new RecognisedConnection(
        seen.number(),
        seen.at(),
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

  /**
   * What a signature would make of a capture or of the recent log, and of the samples; nothing is
   * changed.
   *
   * @param capture 0 for the recent log
   * @param upTo as for what the connections are
   */
  @POST
  @Path("/{capture}/try")
  public Tried attempt(long capture, @QueryParam("upTo") Long upTo, Trying body) {
    Refusal.requireBody(body);
    if (body.application() == null || body.application().isBlank()) {
      throw new Refusal.Invalid("$.application", "the name of an application", "nothing");
    }
    if (body.edition() == null) {
      throw new Refusal.Invalid("$.edition", "the name of an edition of the catalogue", "nothing");
    }
    Signature signature = Signatures.read(body.signature(), "$.signature");
    Recogniser.Named own = new Recogniser.Named(body.application(), signature);
    List<Recogniser.Named> known = editions.edition(body.edition()).signatures();
    List<NumberedConnection> connections =
        kept(capture, upTo).connections().stream().limit(MOST_ROWS).toList();
    Trial trial = Trial.of(known, own, sights(connections));
    List<Mistake> mistakes = new ArrayList<>();
    Recogniser without = new Recogniser(known);
    for (Capture sample : captures.samples()) {
      for (int place : Trial.of(known, own, sights(sample.connections())).taken()) {
        CapturedConnection c = sample.connections().get(place).connection();
        mistakes.add(
            new Mistake(
                sample.name(),
                c.from().toString(),
                c.to().toString(),
                c.service().toString(),
                without.recognise(c.sight()).orElseThrow().meant().use()));
      }
    }
    return new Tried(
        numbers(connections, trial.holds()),
        numbers(connections, trial.meant()),
        numbers(connections, trial.taken()),
        mistakes);
  }

  private static List<Sight> sights(List<NumberedConnection> connections) {
    return connections.stream().map(seen -> seen.connection().sight()).toList();
  }

  private static List<Long> numbers(List<NumberedConnection> connections, List<Integer> places) {
    return places.stream().map(place -> connections.get(place).number()).toList();
  }
}
