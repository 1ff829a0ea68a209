package dev.ironsieve.server.catalogue;

import dev.ironsieve.core.catalogue.Catalogue;
import dev.ironsieve.core.signature.Signature;
import dev.ironsieve.formats.Checked;
import dev.ironsieve.formats.catalogue.CatalogueDocument;
import dev.ironsieve.formats.catalogue.Catalogues;
import dev.ironsieve.formats.catalogue.Signatures;
import dev.ironsieve.server.account.Role;
import dev.ironsieve.server.account.SessionMechanism;
import dev.ironsieve.server.refusal.Refusal;
import io.quarkus.security.identity.SecurityIdentity;
import jakarta.annotation.security.RolesAllowed;
import jakarta.ws.rs.Consumes;
import jakarta.ws.rs.GET;
import jakarta.ws.rs.POST;
import jakarta.ws.rs.Path;
import jakarta.ws.rs.core.Context;
import jakarta.ws.rs.core.MediaType;
import java.util.List;
import org.eclipse.microprofile.openapi.annotations.media.Schema;

/** The editions of the application catalogue. */
@Path("/api/catalogue")
@RolesAllowed(Role.MAY_VIEW)
public class CatalogueResource {
  private final CatalogueEditions editions;

  CatalogueResource(CatalogueEditions editions) {
    this.editions = editions;
  }

  /** Newest first. */
  @GET
  public List<EditionSummary> list() {
    return editions.all().stream()
        .map(row -> new EditionSummary(row.name(), row.importedAt().toString(), row.by()))
        .toList();
  }

  @GET
  @Path("/{edition}")
  public CatalogueDocument edition(String edition) {
    return Catalogues.document(editions.edition(edition));
  }

  /** Reads a document that docs/catalogue.schema.json describes. */
  @POST
  @Consumes(MediaType.APPLICATION_JSON)
  @RolesAllowed(Role.MAY_EDIT)
  public ImportedEdition read(
      @Schema(implementation = Object.class) byte[] document, @Context SecurityIdentity identity) {
    Catalogue catalogue = Catalogues.read(document);
    editions.add(catalogue, SessionMechanism.account(identity).id());
    return new ImportedEdition(catalogue.edition(), catalogue.applications().size());
  }

  /** Makes another edition that has one more signature. */
  @POST
  @Path("/{edition}/signatures")
  @RolesAllowed(Role.MAY_EDIT)
  public ImportedEdition add(
      String edition, OwnSignature body, @Context SecurityIdentity identity) {
    Refusal.requireBody(body);
    Refusal.require(body.application(), "$.application", "the name of an application");
    Signature signature = Signatures.read(body.signature(), "$.signature");
    Catalogue next =
        Checked.at(
            "$",
            () -> editions.edition(edition).telling(body.edition(), body.application(), signature));
    editions.add(next, SessionMechanism.account(identity).id());
    return new ImportedEdition(next.edition(), next.applications().size());
  }
}
