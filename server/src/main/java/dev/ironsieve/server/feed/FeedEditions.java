package dev.ironsieve.server.feed;

import dev.ironsieve.core.model.Feed;
import dev.ironsieve.formats.Json;
import dev.ironsieve.formats.document.FeedDocument;
import dev.ironsieve.formats.document.ToModel;
import dev.ironsieve.formats.feed.ReadFeed;
import dev.ironsieve.server.edition.EditionCache;
import dev.ironsieve.server.jdbc.Database;
import dev.ironsieve.server.jdbc.Sql;
import dev.ironsieve.server.refusal.Refusal;
import jakarta.enterprise.context.ApplicationScoped;
import java.nio.charset.StandardCharsets;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** The editions of feeds, and decisions about those that are held. */
@ApplicationScoped
public class FeedEditions {
  private final Database database;
  private final Feeds feeds;
  private final EditionCache<Feed> editions;

  FeedEditions(Database database, Feeds feeds) {
    this.database = database;
    this.feeds = feeds;
    editions =
        new EditionCache<>(
            database,
            "feed_edition",
            "edition of a feed",
            document -> ToModel.feed(Json.read(document, FeedDocument.class), "$"));
  }

  /** The content of a stored edition. */
  Feed get(String stored) {
    return editions.get(stored);
  }

  /** Stores an edition; empty if there is one of that name. */
  Optional<Long> add(Sql sql, String name, String content, Long account) throws SQLException {
    return editions.add(sql, name, content, account);
  }

  /** All editions of a feed, newest first. */
  List<StoredFeedEdition> reports(StoredFeed feed) {
    return database.inTransaction(
        "looking up a feed's editions",
        sql -> FeedStore.reports(sql, feed.id(), Integer.MAX_VALUE));
  }

  /** The name under which an edition is stored. */
  static String stored(String feed, String edition) {
    return feed + " " + edition;
  }

  /** The name of an edition among those of its feed. */
  static String edition(StoredFeed feed, StoredFeedEdition report) {
    return report.name().substring(feed.name().length() + 1);
  }

  /** An edition of a feed with its facts. */
  record Edition(Feed feed, StoredFeedEdition report, List<ReadFeed.Fault> faults, Feed before) {}

  /**
   * @throws Refusal.NotFound if there is no such feed or edition
   */
  Edition edition(String name, String edition) {
    StoredFeed feed = feeds.feed(name);
    List<StoredFeedEdition> reports = reports(feed);
    StoredFeedEdition report = report(feed, reports, edition);
    Feed before =
        reports.stream()
            .filter(r -> r.edition() < report.edition() && r.isOffered())
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
    return reports(feeds.feed(name)).stream()
        .filter(report -> report.isOffered())
        .findFirst()
        .map(report -> editions.get(report.name()))
        .orElseThrow(() -> new Refusal.NotFound("There is no edition of \"" + name + "\" yet."));
  }

  /** The newest edition that is offered of each feed that has one. */
  public List<Feed> newestOffered() {
    List<Feed> out = new ArrayList<>();
    for (Feeds.FeedStatus status : feeds.all()) {
      reports(status.feed()).stream()
          .filter(report -> report.isOffered())
          .findFirst()
          .ifPresent(report -> out.add(editions.get(report.name())));
    }
    return out;
  }

  /**
   * An edition in any state.
   *
   * @throws Refusal.NotFound if there is none
   */
  public Feed known(String name, String edition) {
    StoredFeed feed = feeds.feed(name);
    return editions.get(report(feed, reports(feed), edition).name());
  }

  /**
   * An edition that rulebases may take.
   *
   * @throws Refusal.NotFound if there is none
   * @throws Refusal.WrongState if it awaits approval, or was rejected
   */
  public Feed offered(String name, String edition) {
    StoredFeed feed = feeds.feed(name);
    StoredFeedEdition report = report(feed, reports(feed), edition);
    if (!report.isOffered()) {
      throw new Refusal.WrongState(
          report.state().equals("held")
              ? "This edition awaits approval."
              : report.decidedBy() + " rejected this edition.");
    }
    return editions.get(report.name());
  }

  /**
   * Approves or rejects an edition that awaits approval.
   *
   * @throws Refusal.WrongState if it does not wait
   */
  void decide(String name, String edition, boolean offer, long account) {
    StoredFeed feed = feeds.feed(name);
    StoredFeedEdition report = report(feed, reports(feed), edition);
    boolean decided =
        database.inTransaction(
            "deciding about an edition",
            sql -> FeedStore.decide(sql, report.edition(), offer, account));
    if (!decided) {
      throw new Refusal.WrongState("This edition does not await approval.");
    }
  }
}
