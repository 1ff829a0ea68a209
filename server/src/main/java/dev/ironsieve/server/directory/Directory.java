package dev.ironsieve.server.directory;

import dev.ironsieve.core.directory.Snapshot;
import dev.ironsieve.formats.Json;
import dev.ironsieve.formats.directory.Snapshots;
import dev.ironsieve.server.edition.EditionCache;
import dev.ironsieve.server.edition.StoredEdition;
import dev.ironsieve.server.jdbc.Database;
import dev.ironsieve.server.refusal.Refusal;
import io.quarkus.scheduler.Scheduled;
import jakarta.enterprise.context.ApplicationScoped;
import java.time.Instant;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.List;
import java.util.Optional;
import org.jboss.logging.Logger;

/**
 * Reads the directory on a schedule and on demand. A reading that finds everything as it was makes
 * no new snapshot; one that fails leaves the last snapshot in force.
 */
@ApplicationScoped
public class Directory {
  private static final Logger LOG = Logger.getLogger(Directory.class);
  private static final DateTimeFormatter EDITION =
      DateTimeFormatter.ofPattern("uuuu-MM-dd HH:mm:ss").withZone(ZoneOffset.UTC);

  private final Database database;
  private final EditionCache<Snapshot> editions;
  private volatile Optional<DirectorySource> source;

  Directory(Database database, DirectoryConfig config) {
    this.database = database;
    editions = new EditionCache<>(database, "directory_snapshot", "snapshot", Snapshots::read);
    source = DirectorySource.of(config, Optional.empty());
  }

  /** Reads from another place from now on. */
  public void use(DirectorySource other) {
    source = Optional.of(other);
  }

  /** Where the directory is, if there is one. */
  Optional<String> address() {
    return source.map(DirectorySource::url);
  }

  List<StoredEdition> snapshots() {
    return editions.all();
  }

  /** The last try to read, or the last that succeeded. */
  public Optional<DirectoryReading> last(boolean succeeded) {
    return database.inTransaction(
        "looking up the last reading", sql -> ReadingStore.last(sql, succeeded));
  }

  @Scheduled(every = "{iron-sieve.directory.every}", delayed = "{iron-sieve.directory.every}")
  void onSchedule() {
    if (source.isPresent()) {
      DirectoryReading row = read(null);
      if (row.fault() != null) {
        LOG.warnf("the directory could not be read: %s", row.fault());
      }
    }
  }

  /**
   * Reads everybody now. One reading at a time: another waits for the first.
   *
   * @param account id of who asked for it, or null
   * @return what came of it
   * @throws Refusal.WrongState if there is no directory
   */
  public synchronized DirectoryReading read(Long account) {
    DirectorySource from =
        source.orElseThrow(
            () -> new Refusal.WrongState("No directory is configured. See README.md."));
    try {
      Snapshot snapshot = DirectoryReader.read(from, EDITION.format(Instant.now()));
      return keep(snapshot, account);
    } catch (DirectoryFault e) {
      return database.inTransaction(
          "storing a failed reading", sql -> ReadingStore.add(sql, account, null, e.getMessage()));
    }
  }

  private DirectoryReading keep(Snapshot found, Long account) {
    Optional<Snapshot> latest = snapshots().stream().findFirst().map(row -> snapshot(row.name()));
    boolean same = latest.isPresent() && latest.get().equals(found.called(latest.get().edition()));
    return database.inTransaction(
        "storing a snapshot of the directory",
        sql -> {
          String name = same ? latest.get().edition() : found.edition();
          for (int next = 2; !same; next++) {
            String content = Json.write(Snapshots.document(found.called(name)));
            if (editions.add(sql, name, content, account).isPresent()) {
              break;
            }
            name = found.edition() + " (" + next + ")";
          }
          return ReadingStore.add(sql, account, name, null);
        });
  }

  /** The newest snapshot; empty if the directory was never read. */
  public Optional<Snapshot> newest() {
    return snapshots().stream().findFirst().map(row -> snapshot(row.name()));
  }

  /**
   * The newest snapshot.
   *
   * @throws Refusal.NotFound if the directory was never read
   */
  public Snapshot latest() {
    return newest().orElseThrow(() -> new Refusal.NotFound("The directory was never read."));
  }

  /**
   * @throws Refusal.NotFound if there is no such snapshot
   */
  public Snapshot snapshot(String name) {
    return editions.get(name);
  }

  /** A snapshot, if there is one of that name. */
  public Optional<Snapshot> known(String name) {
    return editions.known(name);
  }
}
