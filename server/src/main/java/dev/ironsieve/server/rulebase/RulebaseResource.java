package dev.ironsieve.server.rulebase;

import dev.ironsieve.formats.document.FromModel;
import dev.ironsieve.formats.document.RulebaseDocument;
import dev.ironsieve.formats.rfc8519.AclWriter;
import dev.ironsieve.server.account.Role;
import dev.ironsieve.server.account.SessionMechanism;
import dev.ironsieve.server.draft.Drafts;
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
import java.util.List;
import org.eclipse.microprofile.openapi.annotations.media.Schema;

/** Lists, imports and exports rulebases. */
@Path("/api/rulebases")
@RolesAllowed(Role.MAY_VIEW)
public class RulebaseResource {
  private final Rulebases rulebases;
  private final RulebaseImport imports;
  private final Drafts drafts;

  RulebaseResource(Rulebases rulebases, RulebaseImport imports, Drafts drafts) {
    this.rulebases = rulebases;
    this.imports = imports;
    this.drafts = drafts;
  }

  @GET
  public List<RulebaseSummary> list() {
    return rulebases.all().stream()
        .map(
            row ->
                new RulebaseSummary(row.id(), row.name(), row.kind(), row.common(), row.revision()))
        .toList();
  }

  @POST
  @RolesAllowed(Role.MAY_EDIT)
  public Imported add(NewRulebase body, @Context SecurityIdentity identity) {
    Refusal.requireBody(body);
    return imports.empty(body.name(), body.kind(), SessionMechanism.account(identity).id());
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
    return imports.read(document, name, SessionMechanism.account(identity).id());
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
