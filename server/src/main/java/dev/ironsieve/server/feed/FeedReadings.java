package dev.ironsieve.server.feed;

import dev.ironsieve.core.edition.FeedChange;
import dev.ironsieve.core.model.Feed;
import dev.ironsieve.core.model.FeedKind;
import dev.ironsieve.formats.InvalidDocument;
import dev.ironsieve.formats.Json;
import dev.ironsieve.formats.document.FromModel;
import dev.ironsieve.formats.feed.FeedReader;
import dev.ironsieve.formats.feed.ReadFeed;
import dev.ironsieve.server.jdbc.Database;
import dev.ironsieve.server.refusal.Refusal;
import io.quarkus.scheduler.Scheduled;
import jakarta.enterprise.context.ApplicationScoped;
import java.net.URI;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import org.jboss.logging.Logger;

/**
 * Fetches feeds on a schedule and on demand. An unchanged file makes no new edition. A file with
 * bad lines, or one that is much larger or smaller than the last, is held until a person decides;
 * one that cannot be fetched, or has no good line, changes nothing.
 */
@ApplicationScoped
public class FeedReadings {
  private static final Logger LOG = Logger.getLogger(FeedReadings.class);
  private static final DateTimeFormatter EDITION =
      DateTimeFormatter.ofPattern("uuuu-MM-dd HH:mm:ss").withZone(ZoneOffset.UTC);
  private static final int PERCENT = 100;

  private final Database database;
  private final FeedConfig config;
  private final Feeds feeds;
  private final FeedEditions editions;
  private final Map<Long, Object> locks = new ConcurrentHashMap<>(); // by id of the feed

  FeedReadings(Database database, FeedConfig config, Feeds feeds, FeedEditions editions) {
    this.database = database;
    this.config = config;
    this.feeds = feeds;
    this.editions = editions;
  }

  @Scheduled(every = "{iron-sieve.feeds.check}", delayed = "{iron-sieve.feeds.check}")
  void onSchedule() {
    Instant now = Instant.now();
    for (Feeds.FeedStatus known : feeds.all()) {
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
    StoredFeed feed = feeds.feed(name);
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
    StoredFeed feed = feeds.feed(name);
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
    List<StoredFeedEdition> reports = editions.reports(feed);
    Optional<StoredFeedEdition> offered =
        reports.stream().filter(report -> report.isOffered()).findFirst();
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
                        FeedEditions.stored(edition.name(), edition.edition()),
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
          "Its size differs from edition %s by %.0f %%; up to %d %% is approved automatically."
              .formatted(before.edition(), change * PERCENT, feed.mostPercent()));
    }
    return out;
  }
}
