package dev.ironsieve.server.feed;

import dev.ironsieve.server.jdbc.Sql;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.List;
import java.util.Optional;

/** SQL about feeds, attempts to read them, and their editions. */
final class FeedStore {
  private static final String FEEDS =
      "select id, name, kind, url, every_minutes, most_bytes, most_percent from feed";

  private FeedStore() {}

  static List<StoredFeed> all(Sql sql) throws SQLException {
    return sql.list(FEEDS + " order by lower(name)", FeedStore::row);
  }

  static Optional<StoredFeed> feed(Sql sql, String name) throws SQLException {
    return sql.first(FEEDS + " where lower(name) = lower(?)", FeedStore::row, name);
  }

  private static StoredFeed row(ResultSet row) throws SQLException {
    return new StoredFeed(
        row.getLong("id"),
        row.getString("name"),
        row.getString("kind"),
        row.getString("url"),
        row.getInt("every_minutes"),
        row.getLong("most_bytes"),
        row.getInt("most_percent"));
  }

  /** Adds a feed, or nothing if there is one of that name. */
  static boolean add(Sql sql, StoredFeed feed) throws SQLException {
    return sql.change(
            "insert into feed (name, kind, url, every_minutes, most_bytes, most_percent)"
                + " values (?, ?, ?, ?, ?, ?) on conflict do nothing",
            feed.name(),
            feed.kind(),
            feed.url(),
            feed.everyMinutes(),
            feed.mostBytes(),
            feed.mostPercent())
        > 0;
  }

  static int change(Sql sql, StoredFeed feed) throws SQLException {
    return sql.change(
        "update feed set url = ?, every_minutes = ?, most_bytes = ?, most_percent = ?"
            + " where id = ?",
        feed.url(),
        feed.everyMinutes(),
        feed.mostBytes(),
        feed.mostPercent(),
        feed.id());
  }

  static int remove(Sql sql, long feed) throws SQLException {
    return sql.change("delete from feed where id = ?", feed);
  }

  static int addReading(Sql sql, long feed, Long account, FeedReading reading) throws SQLException {
    return sql.change(
        "insert into feed_reading (feed, by, edition, etag, fault) values (?, ?, ?, ?, ?)",
        feed,
        account,
        reading.edition(),
        reading.etag(),
        reading.fault());
  }

  /** The last try, or the last that succeeded. */
  static Optional<FeedReading> last(Sql sql, long feed, boolean succeeded) throws SQLException {
    return sql.first(
        "select at, edition, etag, fault from feed_reading"
            + " where feed = ? and (edition is not null or not ?) order by id desc limit 1",
        row ->
            new FeedReading(
                Sql.instant(row, "at"),
                row.getObject("edition", Long.class),
                row.getString("etag"),
                row.getString("fault")),
        feed,
        succeeded);
  }

  static void addReport(
      Sql sql,
      long feed,
      long edition,
      int entries,
      int bad,
      String faults,
      double change,
      List<String> reasons)
      throws SQLException {
    sql.change(
        "insert into feed_report (edition, feed, entries, bad, faults, change, reasons, state)"
            + " values (?, ?, ?, ?, ?, ?, ?, ?)",
        edition,
        feed,
        entries,
        bad,
        faults,
        change,
        reasons.toArray(String[]::new),
        reasons.isEmpty() ? "offered" : "held");
  }

  /** Forgets entity tags: what had them may be somewhere else from now on. */
  static int forgetTags(Sql sql, long feed) throws SQLException {
    return sql.change("update feed_reading set etag = null where feed = ?", feed);
  }

  /**
   * Newest first.
   *
   * @param most how many are wanted
   */
  static List<StoredFeedEdition> reports(Sql sql, long feed, int most) throws SQLException {
    return sql.list(
        "select r.edition, e.name, e.imported_at, a.display_name, r.entries, r.bad, r.faults,"
            + " r.change, r.reasons, r.state, d.display_name as decided"
            + " from feed_report r join feed_edition e on e.id = r.edition"
            + " left join account a on a.id = e.imported_by"
            + " left join account d on d.id = r.decided_by"
            + " where r.feed = ? order by r.edition desc limit ?",
        row ->
            new StoredFeedEdition(
                row.getLong("edition"),
                row.getString("name"),
                Sql.instant(row, "imported_at"),
                row.getString("display_name"),
                row.getInt("entries"),
                row.getInt("bad"),
                row.getString("faults"),
                row.getDouble("change"),
                (String[]) row.getArray("reasons").getArray(),
                row.getString("state"),
                row.getString("decided")),
        feed,
        most);
  }

  /** Decides about a held edition; false if it was not held. */
  static boolean decide(Sql sql, long edition, boolean offer, long account) throws SQLException {
    return sql.change(
            "update feed_report set state = ?, decided_by = ?, decided_at = now()"
                + " where edition = ? and state = 'held'",
            offer ? "offered" : "refused",
            account,
            edition)
        > 0;
  }
}
