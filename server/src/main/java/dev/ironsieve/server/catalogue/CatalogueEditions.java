package dev.ironsieve.server.catalogue;

import dev.ironsieve.core.catalogue.Catalogue;
import dev.ironsieve.formats.Json;
import dev.ironsieve.formats.catalogue.Catalogues;
import dev.ironsieve.server.edition.EditionCache;
import dev.ironsieve.server.edition.StoredEdition;
import dev.ironsieve.server.jdbc.Database;
import dev.ironsieve.server.refusal.Refusal;
import jakarta.enterprise.context.ApplicationScoped;
import java.util.List;
import java.util.Optional;

/** Importing and reading editions of the catalogue. */
@ApplicationScoped
public class CatalogueEditions {
  private final Database database;
  private final EditionCache<Catalogue> editions;

  CatalogueEditions(Database database) {
    this.database = database;
    editions = new EditionCache<>(database, "catalogue_edition", "edition", Catalogues::read);
  }

  List<StoredEdition> all() {
    return editions.all();
  }

  /**
   * Stores an edition.
   *
   * @param account id of who imports it, or null for the demo
   * @throws Refusal.WrongState if the edition is there already
   */
  public void add(Catalogue catalogue, Long account) {
    String content = Json.write(Catalogues.document(catalogue));
    boolean added =
        database.inTransaction(
            "storing an edition",
            sql -> editions.add(sql, catalogue.edition(), content, account).isPresent());
    if (!added) {
      throw new Refusal.WrongState("There is an edition \"" + catalogue.edition() + "\" already.");
    }
  }

  /**
   * @throws Refusal.NotFound if there is no such edition
   */
  public Catalogue edition(String name) {
    return editions.get(name);
  }

  /** The newest edition, if there is any. */
  public Optional<Catalogue> newest() {
    return all().stream().findFirst().map(stored -> edition(stored.name()));
  }

  /** An edition, if there is one of that name. */
  public Optional<Catalogue> known(String name) {
    return editions.known(name);
  }
}
