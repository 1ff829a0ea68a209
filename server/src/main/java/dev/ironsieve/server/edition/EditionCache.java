package dev.ironsieve.server.edition;

import dev.ironsieve.server.jdbc.Database;
import dev.ironsieve.server.jdbc.Sql;
import dev.ironsieve.server.refusal.Refusal;
import java.nio.charset.StandardCharsets;
import java.sql.SQLException;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;

/** The editions of one source; those asked for last are in memory. An edition never changes. */
public final class EditionCache<T> {
  private static final int MOST_IN_MEMORY = 6;

  private final Database database;
  private final EditionStore store;
  private final String word;
  private final Function<byte[], T> reader;
  private final Map<String, T> read =
      Collections.synchronizedMap(
          new LinkedHashMap<>(16, 0.75f, true) {
            @Override
            protected boolean removeEldestEntry(Map.Entry<String, T> eldest) {
              return size() > MOST_IN_MEMORY;
            }
          });

  /**
   * @param table where they are stored; see {@link EditionStore}
   * @param word what people call one of them
   * @param reader makes one of its stored document
   */
  public EditionCache(Database database, String table, String word, Function<byte[], T> reader) {
    this.database = database;
    this.store = new EditionStore(table);
    this.word = word;
    this.reader = reader;
  }

  /** Newest first. */
  public List<StoredEdition> all() {
    return database.inTransaction("listing every " + word, store::all);
  }

  /** The id of the added edition; empty if one of that name exists. */
  public Optional<Long> add(Sql sql, String name, String content, Long account)
      throws SQLException {
    return store.add(sql, name, content, account);
  }

  /** One of them, if there is one of that name. */
  public Optional<T> known(String name) {
    return Optional.ofNullable(
        read.computeIfAbsent(
            name,
            n ->
                database
                    .inTransaction("reading the " + word, sql -> store.content(sql, n))
                    .map(content -> reader.apply(content.getBytes(StandardCharsets.UTF_8)))
                    .orElse(null)));
  }

  /**
   * @throws Refusal.NotFound if there is none of that name
   */
  public T get(String name) {
    return known(name)
        .orElseThrow(() -> new Refusal.NotFound("There is no %s \"%s\".".formatted(word, name)));
  }
}
