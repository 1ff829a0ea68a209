package dev.ironsieve.server.feed;

import dev.ironsieve.core.model.Feed;
import dev.ironsieve.core.model.FeedKind;
import dev.ironsieve.core.model.InvalidModel;
import dev.ironsieve.server.audit.AuditAction;
import dev.ironsieve.server.audit.AuditTrail;
import dev.ironsieve.server.jdbc.Database;
import dev.ironsieve.server.refusal.Refusal;
import jakarta.enterprise.context.ApplicationScoped;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Optional;

/** The feeds and their settings. */
@ApplicationScoped
public class Feeds {
  private static final int MOST_LISTED = 20; // editions of one feed

  private final Database database;
  private final AuditTrail trail;

  Feeds(Database database, AuditTrail trail) {
    this.database = database;
    this.trail = trail;
  }

  /**
   * A feed with its readings and newest editions.
   *
   * @param tried the last try to read it, if there was one
   * @param read the last that succeeded
   * @param reports of its newest editions, newest first
   */
  record FeedStatus(
      StoredFeed feed,
      Optional<FeedReading> tried,
      Optional<FeedReading> read,
      List<StoredFeedEdition> reports) {}

  /** By name. */
  List<FeedStatus> all() {
    return database.inTransaction(
        "listing the feeds",
        sql -> {
          List<FeedStatus> out = new ArrayList<>();
          for (StoredFeed feed : FeedStore.all(sql)) {
            out.add(
                new FeedStatus(
                    feed,
                    FeedStore.last(sql, feed.id(), false),
                    FeedStore.last(sql, feed.id(), true),
                    FeedStore.reports(sql, feed.id(), MOST_LISTED)));
          }
          return out;
        });
  }

  /**
   * A feed by name.
   *
   * @throws Refusal.NotFound if there is none
   */
  StoredFeed feed(String name) {
    return database
        .inTransaction("looking up a feed", sql -> FeedStore.feed(sql, name))
        .orElseThrow(() -> new Refusal.NotFound("There is no feed \"" + name + "\"."));
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
            "adding a feed",
            sql -> {
              boolean made = FeedStore.add(sql, settings.row(0, name, kind.word()));
              if (made) {
                trail.add(sql, AuditAction.FEED_ADDED, name, "");
              }
              return made;
            });
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
          trail.add(sql, AuditAction.FEED_CHANGED, feed.name(), "");
          boolean moved = !Objects.equals(feed.url(), settings.url());
          return FeedStore.change(sql, settings.row(feed.id(), feed.name(), feed.kind()))
              + (moved ? FeedStore.forgetTags(sql, feed.id()) : 0);
        });
  }

  /** Forgets a feed. Rulebases that have an edition of it keep that. */
  void remove(String name) {
    StoredFeed feed = feed(name);
    database.inTransaction(
        "removing a feed",
        sql -> {
          trail.add(sql, AuditAction.FEED_REMOVED, feed.name(), "");
          return FeedStore.remove(sql, feed.id());
        });
  }
}
