package dev.ironsieve.server.capture;

import dev.ironsieve.core.signature.Recogniser;
import dev.ironsieve.core.signature.Signature;
import dev.ironsieve.formats.catalogue.Signatures;
import dev.ironsieve.server.account.Role;
import dev.ironsieve.server.refusal.Refusal;
import jakarta.annotation.security.RolesAllowed;
import jakarta.ws.rs.Consumes;
import jakarta.ws.rs.DefaultValue;
import jakarta.ws.rs.GET;
import jakarta.ws.rs.POST;
import jakarta.ws.rs.Path;
import jakarta.ws.rs.QueryParam;
import jakarta.ws.rs.core.MediaType;
import java.util.List;
import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * Captures and the recent log, and their connections as the signatures of an edition recognise
 * them.
 */
@Path("/api/captures")
@RolesAllowed(Role.MAY_VIEW)
public class CaptureResource {
  private final CaptureRecognition recognition;
  private final CaptureMemory captures;
  private final RecentLog recent;

  CaptureResource(CaptureRecognition recognition, CaptureMemory captures, RecentLog recent) {
    this.recognition = recognition;
    this.captures = captures;
    this.recent = recent;
  }

  /** The recent log, and then the captures. */
  @GET
  public List<CaptureSummary> list() {
    return recognition.list();
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
    return CaptureSummary.of(captures.add(name, capture));
  }

  /**
   * Adds the next few seconds of a tap's packets, pcap or pcapng, to the recent log. A connection
   * may go through several of them.
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
   * The connections with their applications.
   *
   * @param capture 0 for the recent log
   * @param upTo of the recent log, the number of the newest connection that is asked for
   */
  @GET
  @Path("/{capture}")
  public RecognisedCapture recognised(
      long capture, @QueryParam("edition") String edition, @QueryParam("upTo") Long upTo) {
    Refusal.require(edition, "edition", "the name of an edition of the catalogue");
    return recognition.recognise(capture, upTo, edition);
  }

  /**
   * The effect of a signature on a capture or on the recent log, and on the samples; nothing is
   * changed.
   *
   * @param capture 0 for the recent log
   * @param upTo as for what the connections are
   */
  @POST
  @Path("/{capture}/try")
  public SignatureTrialResult attempt(
      long capture, @QueryParam("upTo") Long upTo, SignatureTrialRequest body) {
    Refusal.requireBody(body);
    if (body.application() == null || body.application().isBlank()) {
      throw new Refusal.Invalid("$.application", "the name of an application", "nothing");
    }
    Refusal.require(body.edition(), "$.edition", "the name of an edition of the catalogue");
    Signature signature = Signatures.read(body.signature(), "$.signature");
    return recognition.attempt(
        capture, upTo, body.edition(), new Recogniser.Named(body.application(), signature));
  }
}
