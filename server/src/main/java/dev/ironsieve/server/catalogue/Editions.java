package dev.ironsieve.server.catalogue;

import dev.ironsieve.core.catalogue.Catalogue;
import dev.ironsieve.formats.Json;
import dev.ironsieve.formats.catalogue.Catalogues;
import dev.ironsieve.server.edition.EditionStore;
import dev.ironsieve.server.http.Problem;
import dev.ironsieve.server.jdbc.Database;
import jakarta.enterprise.context.ApplicationScoped;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;

/** Importing and reading editions of the catalogue. An edition, once in, never changes. */
@ApplicationScoped
public class Editions {
  private static final EditionStore STORE = new EditionStore("catalogue_edition");

  private final Database database;
  private final Map<String, Catalogue> read = new ConcurrentHashMap<>();

  Editions(Database database) {
    this.database = database;
  }

  List<EditionStore.Row> all() {
    return database.inTransaction("listing the catalogue's editions", STORE::all);
  }

  /**
   * Stores an edition.
   *
   * @param account id of who imports it, or null for the demo
   * @throws Problem 409 if the edition is there already
   */
  public void add(Catalogue catalogue, Long account) {
    String content = Json.write(Catalogues.document(catalogue));
    database
        .inTransaction(
            "storing an edition", sql -> STORE.add(sql, catalogue.edition(), content, account))
        .orElseThrow(
            () -> Problem.of(409, "There is an edition \"" + catalogue.edition() + "\" already."));
  }

  /**
   * @throws Problem 404 if there is no such edition
   */
  public Catalogue edition(String name) {
    return known(name).orElseThrow(() -> Problem.of(404, "There is no edition \"" + name + "\"."));
  }

  /** An edition, if there is one of that name. */
  public Optional<Catalogue> known(String name) {
    return Optional.ofNullable(
        read.computeIfAbsent(
            name,
            n ->
                database
                    .inTransaction("reading an edition", sql -> STORE.content(sql, n))
                    .map(content -> Catalogues.read(content.getBytes(StandardCharsets.UTF_8)))
                    .orElse(null)));
  }
}
