package dev.ironsieve.server.feed;

import dev.ironsieve.core.edition.FeedChange;
import dev.ironsieve.core.model.Feed;
import dev.ironsieve.core.model.FeedKind;
import dev.ironsieve.core.model.InvalidModel;
import dev.ironsieve.formats.InvalidDocument;
import dev.ironsieve.formats.Json;
import dev.ironsieve.formats.document.FeedDocument;
import dev.ironsieve.formats.document.FromModel;
import dev.ironsieve.formats.document.ToModel;
import dev.ironsieve.formats.feed.FeedReader;
import dev.ironsieve.formats.feed.ReadFeed;
import dev.ironsieve.server.edition.EditionCache;
import dev.ironsieve.server.jdbc.Database;
import dev.ironsieve.server.refusal.Refusal;
import io.quarkus.scheduler.Scheduled;
import jakarta.enterprise.context.ApplicationScoped;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import org.jboss.logging.Logger;

/**
 * Fetches feeds on a schedule and on demand. An unchanged file makes no new edition. A file with
 * bad lines, or one that is much larger or smaller than the last, is held until a person decides;
 * one that cannot be fetched, or has no good line, changes nothing.
 */
@ApplicationScoped
public class Feeds {
  private static final Logger LOG = Logger.getLogger(Feeds.class);
  private static final DateTimeFormatter EDITION =
      DateTimeFormatter.ofPattern("uuuu-MM-dd HH:mm:ss").withZone(ZoneOffset.UTC);
  private static final String OFFERED = "offered";
  private static final int PERCENT = 100;
  private static final int MOST_LISTED = 20; // editions of one feed

  private final Database database;
  private final FeedConfig config;
  private final EditionCache<Feed> editions;
  private final Map<Long, Object> locks = new ConcurrentHashMap<>(); // by id of the feed

  Feeds(Database database, FeedConfig config) {
    this.database = database;
    this.config = config;
    editions =
        new EditionCache<>(
            database,
            "feed_edition",
            "edition of a feed",
            document -> ToModel.feed(Json.read(document, FeedDocument.class), "$"));
  }

  /**
   * A feed and what is known of it.
   *
   * @param tried the last try to read it, if there was one
   * @param read the last that succeeded
   * @param reports of its newest editions, newest first
   */
  record Known(
      StoredFeed feed,
      Optional<FeedReading> tried,
      Optional<FeedReading> read,
      List<StoredFeedEdition> reports) {}

  /** By name. */
  List<Known> all() {
    return database.inTransaction(
        "listing the feeds",
        sql -> {
          List<Known> out = new ArrayList<>();
          for (StoredFeed feed : FeedStore.all(sql)) {
            out.add(
                new Known(
                    feed,
                    FeedStore.last(sql, feed.id(), false),
                    FeedStore.last(sql, feed.id(), true),
                    FeedStore.reports(sql, feed.id(), MOST_LISTED)));
          }
          return out;
        });
  }

  private StoredFeed feed(String name) {
    return database
        .inTransaction("looking up a feed", sql -> FeedStore.feed(sql, name))
        .orElseThrow(() -> new Refusal.NotFound("There is no feed \"" + name + "\"."));
  }

  private List<StoredFeedEdition> reports(StoredFeed feed) {
    return database.inTransaction(
        "looking up a feed's editions",
        sql -> FeedStore.reports(sql, feed.id(), Integer.MAX_VALUE));
  }

  /**
   * Adds a feed.
   *
   * @throws InvalidModel if it cannot have that name
   * @throws Refusal.WrongState if there is one of that name
   */
  public void add(String name, FeedKind kind, FeedSettings settings) {
    Feed.checkName(name);
    boolean added =
        database.inTransaction(
            "adding a feed", sql -> FeedStore.add(sql, settings.row(0, name, kind.word())));
    if (!added) {
      throw new Refusal.WrongState("There is a feed \"" + name + "\" already.");
    }
  }

  /** Adds a feed, or changes how the one of that name is fetched; whether it is new. */
  public boolean put(String name, FeedKind kind, FeedSettings settings) {
    boolean there =
        database.inTransaction("looking up a feed", sql -> FeedStore.feed(sql, name)).isPresent();
    if (there) {
      change(name, settings);
    } else {
      add(name, kind, settings);
    }
    return !there;
  }

  /**
   * @throws Refusal.NotFound if there is no such feed
   */
  void change(String name, FeedSettings settings) {
    StoredFeed feed = feed(name);
    database.inTransaction(
        "changing a feed",
        sql -> {
          boolean moved = !Objects.equals(feed.url(), settings.url());
          return FeedStore.change(sql, settings.row(feed.id(), feed.name(), feed.kind()))
              + (moved ? FeedStore.forgetTags(sql, feed.id()) : 0);
        });
  }

  /** Forgets a feed. Rulebases that have an edition of it keep that. */
  void remove(String name) {
    StoredFeed feed = feed(name);
    database.inTransaction("removing a feed", sql -> FeedStore.remove(sql, feed.id()));
  }

  @Scheduled(every = "{iron-sieve.feeds.check}", delayed = "{iron-sieve.feeds.check}")
  void onSchedule() {
    Instant now = Instant.now();
    for (Known known : all()) {
      StoredFeed feed = known.feed();
      Duration every = Duration.ofMinutes(feed.everyMinutes());
      boolean due = known.tried().map(last -> last.at().plus(every).isBefore(now)).orElse(true);
      if (due && feed.url() != null) {
        String fault = fetch(feed.name(), null).fault();
        if (fault != null) {
          LOG.warnf("the feed \"%s\" could not be read: %s", feed.name(), fault);
        }
      }
    }
  }

  /**
   * Fetches a feed now; a failure is in the answer.
   *
   * @param account id of who asks for it, or null
   * @throws Refusal.WrongState if it has no URL
   */
  public FeedReading fetch(String name, Long account) {
    StoredFeed feed = feed(name);
    if (feed.url() == null) {
      throw new Refusal.WrongState("The feed \"" + feed.name() + "\" has no URL; upload a file.");
    }
    synchronized (lock(feed)) {
      Optional<FeedReading> last =
          database.inTransaction(
              "looking up the last reading", sql -> FeedStore.last(sql, feed.id(), true));
      String etag = last.map(FeedReading::etag).orElse(null);
      FeedReading reading;
      try {
        FeedFetcher.Fetched fetched =
            FeedFetcher.fetch(URI.create(feed.url()), etag, feed.mostBytes(), config.longest());
        reading =
            fetched.file() == null
                ? found(last.orElseThrow().edition(), etag)
                : keep(feed, fetched.file(), fetched.etag(), account);
      } catch (FeedFault e) {
        reading = failed(e.getMessage());
      }
      return noted(feed, account, reading);
    }
  }

  /**
   * Reads an uploaded file.
   *
   * @throws Refusal.TooLarge if it is too large
   */
  FeedReading upload(String name, byte[] file, long account) {
    StoredFeed feed = feed(name);
    if (file.length > feed.mostBytes()) {
      throw new Refusal.TooLarge("The file is larger than " + feed.mostBytes() + " bytes.");
    }
    synchronized (lock(feed)) {
      return noted(feed, account, keep(feed, file, null, account));
    }
  }

  private Object lock(StoredFeed feed) {
    return locks.computeIfAbsent(feed.id(), id -> new Object());
  }

  private static FeedReading found(long edition, String etag) {
    return new FeedReading(Instant.now(), edition, etag, null);
  }

  private static FeedReading failed(String fault) {
    return new FeedReading(Instant.now(), null, null, fault);
  }

  private FeedReading noted(StoredFeed feed, Long account, FeedReading reading) {
    database.inTransaction(
        "storing a reading of a feed",
        sql -> FeedStore.addReading(sql, feed.id(), account, reading));
    return reading;
  }

  private FeedReading keep(StoredFeed feed, byte[] file, String etag, Long account) {
    FeedKind kind = FeedKind.valueOf(feed.kind().toUpperCase(Locale.ROOT));
    ReadFeed read;
    try {
      read = FeedReader.read(kind, feed.name(), file);
    } catch (InvalidDocument e) {
      return failed(e.getMessage() + ".");
    }
    String faults = Json.write(read.faults());
    String now = EDITION.format(Instant.now());
    List<StoredFeedEdition> reports = reports(feed);
    Optional<StoredFeedEdition> offered =
        reports.stream().filter(report -> report.state().equals(OFFERED)).findFirst();
    for (StoredFeedEdition report :
        reports.stream()
            .filter(r -> r == reports.getFirst() || r == offered.orElse(null))
            .toList()) {
      boolean same = editions.get(report.name()).sets().equals(read.sets());
      if (same && report.faults().equals(faults)) {
        return found(report.edition(), etag);
      }
    }
    Feed candidate = new Feed(feed.name(), kind, now, read.sets());
    Feed before = offered.map(report -> editions.get(report.name())).orElse(null);
    double change = before == null ? 0 : FeedChange.share(before, candidate);
    List<String> reasons = reasons(feed, read, before, change);
    long id =
        database.inTransaction(
            "storing an edition of a feed",
            sql -> {
              Optional<Long> added = Optional.empty();
              for (int next = 1; added.isEmpty(); next++) {
                Feed edition =
                    new Feed(
                        feed.name(), kind, next == 1 ? now : now + " (" + next + ")", read.sets());
                added =
                    editions.add(
                        sql,
                        stored(edition.name(), edition.edition()),
                        Json.write(FromModel.feed(edition)),
                        account);
              }
              FeedStore.addReport(
                  sql, feed.id(), added.get(), read.good(), read.bad(), faults, change, reasons);
              return added.get();
            });
    return found(id, etag);
  }

  /** Why a person has to decide about an edition; nothing if nobody has to. */
  private static List<String> reasons(StoredFeed feed, ReadFeed read, Feed before, double change) {
    List<String> out = new ArrayList<>();
    if (read.bad() > 0) {
      out.add("%d of %d lines could not be read.".formatted(read.bad(), read.good() + read.bad()));
    }
    if (change * PERCENT > feed.mostPercent()) {
      out.add(
          "Its size differs from edition %s by %.0f %%; up to %d %% goes through by itself."
              .formatted(before.edition(), change * PERCENT, feed.mostPercent()));
    }
    return out;
  }

  /** What an edition is stored as. */
  private static String stored(String feed, String edition) {
    return feed + " " + edition;
  }

  /** What an edition is called among those of its feed. */
  static String edition(StoredFeed feed, StoredFeedEdition report) {
    return report.name().substring(feed.name().length() + 1);
  }

  /** An edition of a feed, with what is known of it. */
  record Edition(Feed feed, StoredFeedEdition report, List<ReadFeed.Fault> faults, Feed before) {}

  /**
   * @throws Refusal.NotFound if there is no such feed or edition
   */
  Edition edition(String name, String edition) {
    StoredFeed feed = feed(name);
    List<StoredFeedEdition> reports = reports(feed);
    StoredFeedEdition report = report(feed, reports, edition);
    Feed before =
        reports.stream()
            .filter(r -> r.edition() < report.edition() && r.state().equals(OFFERED))
            .findFirst()
            .map(r -> editions.get(r.name()))
            .orElse(null);
    ReadFeed.Fault[] faults =
        Json.read(report.faults().getBytes(StandardCharsets.UTF_8), ReadFeed.Fault[].class);
    return new Edition(editions.get(report.name()), report, List.of(faults), before);
  }

  private static StoredFeedEdition report(
      StoredFeed feed, List<StoredFeedEdition> reports, String edition) {
    return reports.stream()
        .filter(report -> edition(feed, report).equals(edition))
        .findFirst()
        .orElseThrow(
            () ->
                new Refusal.NotFound(
                    "There is no edition \"%s\" of \"%s\".".formatted(edition, feed.name())));
  }

  /**
   * The newest edition that rulebases are offered.
   *
   * @throws Refusal.NotFound if there is none
   */
  public Feed newestOffered(String name) {
    return reports(feed(name)).stream()
        .filter(report -> report.state().equals(OFFERED))
        .findFirst()
        .map(report -> editions.get(report.name()))
        .orElseThrow(() -> new Refusal.NotFound("There is no edition of \"" + name + "\" yet."));
  }

  /**
   * An edition, in whatever state.
   *
   * @throws Refusal.NotFound if there is none
   */
  public Feed known(String name, String edition) {
    StoredFeed feed = feed(name);
    return editions.get(report(feed, reports(feed), edition).name());
  }

  /**
   * An edition that rulebases may take.
   *
   * @throws Refusal.NotFound if there is none; 409 if it waits for a person, or was refused
   */
  public Feed offered(String name, String edition) {
    StoredFeed feed = feed(name);
    StoredFeedEdition report = report(feed, reports(feed), edition);
    if (!report.state().equals(OFFERED)) {
      throw new Refusal.WrongState(
          report.state().equals("held")
              ? "This edition waits for approval."
              : report.decidedBy() + " refused this edition.");
    }
    return editions.get(report.name());
  }

  /**
   * Lets an edition that waits through, or refuses it.
   *
   * @throws Refusal.WrongState if it does not wait
   */
  void decide(String name, String edition, boolean offer, long account) {
    StoredFeed feed = feed(name);
    StoredFeedEdition report = report(feed, reports(feed), edition);
    boolean decided =
        database.inTransaction(
            "deciding about an edition",
            sql -> FeedStore.decide(sql, report.edition(), offer, account));
    if (!decided) {
      throw new Refusal.WrongState("This edition does not wait for anybody.");
    }
  }
}
