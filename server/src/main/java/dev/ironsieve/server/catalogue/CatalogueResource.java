package dev.ironsieve.server.catalogue;

import dev.ironsieve.core.catalogue.Catalogue;
import dev.ironsieve.formats.catalogue.CatalogueDocument;
import dev.ironsieve.formats.catalogue.Catalogues;
import dev.ironsieve.server.account.Role;
import dev.ironsieve.server.account.SessionMechanism;
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
  private final Editions editions;

  CatalogueResource(Editions editions) {
    this.editions = editions;
  }

  /**
   * One edition in the list.
   *
   * @param importedAt ISO 8601
   * @param by who imported it; nothing for the demo's
   */
  public record ListedEdition(
      @Schema(required = true) String name,
      @Schema(required = true) String importedAt,
      String by) {}

  /** An edition that was read in. */
  public record ImportedEdition(
      @Schema(required = true) String name, @Schema(required = true) int applications) {}

  /** Newest first. */
  @GET
  public List<ListedEdition> list() {
    return editions.all().stream()
        .map(row -> new ListedEdition(row.name(), row.importedAt().toString(), row.by()))
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
}
