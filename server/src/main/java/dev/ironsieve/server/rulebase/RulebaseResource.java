package dev.ironsieve.server.rulebase;

import com.fasterxml.jackson.databind.JsonNode;
import dev.ironsieve.core.analysis.LiveAnalysis;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.formats.Json;
import dev.ironsieve.formats.document.FromModel;
import dev.ironsieve.formats.document.RulebaseDocument;
import dev.ironsieve.formats.document.ToModel;
import dev.ironsieve.formats.rfc8519.AclReader;
import dev.ironsieve.formats.rfc8519.AclWriter;
import dev.ironsieve.server.account.Role;
import dev.ironsieve.server.account.SessionMechanism;
import dev.ironsieve.server.draft.DraftSize;
import dev.ironsieve.server.draft.Drafts;
import dev.ironsieve.server.question.QuestionPool;
import dev.ironsieve.server.refusal.Refusal;
import io.quarkus.security.identity.SecurityIdentity;
import jakarta.annotation.security.RolesAllowed;
import jakarta.ws.rs.Consumes;
import jakarta.ws.rs.GET;
import jakarta.ws.rs.POST;
import jakarta.ws.rs.Path;
import jakarta.ws.rs.QueryParam;
import jakarta.ws.rs.core.Context;
import jakarta.ws.rs.core.MediaType;
import java.time.LocalDate;
import java.util.List;
import org.eclipse.microprofile.openapi.annotations.media.Schema;

/** The rulebases, and their way in and out. */
@Path("/api/rulebases")
@RolesAllowed(Role.MAY_VIEW)
public class RulebaseResource {
  private final Rulebases rulebases;
  private final DraftSize size;
  private final Drafts drafts;
  private final QuestionPool pool;

  RulebaseResource(Rulebases rulebases, Drafts drafts, QuestionPool pool, DraftSize size) {
    this.size = size;
    this.rulebases = rulebases;
    this.drafts = drafts;
    this.pool = pool;
  }

  /** One rulebase in the list. */
  public record RulebaseSummary(
      @Schema(required = true) long id,
      @Schema(required = true) String name,
      @Schema(required = true) int revision) {}

  /** The name of a new, empty rulebase. */
  public record NewRulebase(@Schema(required = true) String name) {}

  /**
   * A rulebase that was read in.
   *
   * @param notes what of the document was not taken over, or was changed
   */
  public record Imported(
      @Schema(required = true) long id,
      @Schema(required = true) int rules,
      @Schema(required = true) List<String> notes) {}

  /**
   * A rulebase as RFC 8519 says it.
   *
   * @param document the document, {@code ietf-access-control-list:acls}
   * @param leftOut rules that the standard cannot say
   * @param notes what of the written rules is not in the document
   */
  public record Exported(
      @Schema(required = true, implementation = Object.class) JsonNode document,
      @Schema(required = true) List<AclWriter.LeftOut> leftOut,
      @Schema(required = true) List<String> notes) {}

  @GET
  public List<RulebaseSummary> list() {
    return rulebases.all().stream()
        .map(row -> new RulebaseSummary(row.id(), row.name(), row.revision()))
        .toList();
  }

  @POST
  @RolesAllowed(Role.MAY_EDIT)
  public Imported add(NewRulebase body, @Context SecurityIdentity identity) {
    Refusal.requireBody(body);
    return store(Rulebase.empty(body.name()), List.of(), identity);
  }

  /** Reads a document: our own, or RFC 8519, which takes {@code name}. */
  @POST
  @Path("/import")
  @Consumes(MediaType.APPLICATION_JSON)
  @RolesAllowed(Role.MAY_EDIT)
  public Imported read(
      @QueryParam("name") String name,
      @Schema(implementation = Object.class) byte[] document,
      @Context SecurityIdentity identity) {
    if (!AclReader.looksLikeOne(document)) {
      RulebaseDocument own = Json.read(document, RulebaseDocument.class);
      Rulebase read = ToModel.rulebase(own);
      return store(name == null || name.isBlank() ? read : read.named(name), List.of(), identity);
    }
    if (name == null || name.isBlank()) {
      throw new Refusal.Invalid("name", "a name for the new rulebase", "nothing");
    }
    AclReader.Imported imported = AclReader.read(document, name);
    return store(imported.rulebase(), imported.notes(), identity);
  }

  /** Analyses a rulebase before it is stored, so that whatever is stored can be opened. */
  private Imported store(Rulebase rulebase, List<String> notes, SecurityIdentity identity) {
    size.check(rulebase);
    LocalDate today = LocalDate.now(rulebase.gatewaySettings().timeZone());
    pool.ask(() -> new LiveAnalysis(rulebase, today));
    long id = rulebases.add(rulebase, SessionMechanism.account(identity).id());
    return new Imported(id, rulebase.rules().size(), notes);
  }

  @GET
  @Path("/{rulebase}/draft/rfc8519")
  public Exported writeRfc8519(long rulebase) {
    AclWriter.Exported exported = AclWriter.write(drafts.rulebase(rulebase));
    return new Exported(exported.document(), exported.leftOut(), exported.notes());
  }

  @GET
  @Path("/{rulebase}/draft/document")
  public RulebaseDocument writeDocument(long rulebase) {
    return FromModel.rulebase(drafts.rulebase(rulebase));
  }
}
