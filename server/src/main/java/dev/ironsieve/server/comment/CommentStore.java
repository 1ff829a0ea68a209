package dev.ironsieve.server.comment;

import dev.ironsieve.server.jdbc.Sql;
import java.sql.SQLException;
import java.util.List;

/** SQL about comments on rules. */
final class CommentStore {
  private CommentStore() {}

  /**
   * The comments on a draft or a revision, the oldest first.
   *
   * @param revision null for those on the draft
   */
  static List<ReviewComment> all(Sql sql, long rulebase, Integer revision) throws SQLException {
    return sql.list(
        "select c.id, c.rule, a.name, a.display_name, c.at, c.text from review_comment c"
            + " join account a on a.id = c.account_id"
            + " where c.rulebase_id = ? and c.revision is not distinct from ?::int order by c.id",
        row ->
            new ReviewComment(
                row.getLong("id"),
                row.getString("rule"),
                row.getString("name"),
                row.getString("display_name"),
                Sql.instant(row, "at").toString(),
                row.getString("text")),
        rulebase,
        revision);
  }

  static int count(Sql sql, long rulebase) throws SQLException {
    return sql.first(
            "select count(*) as n from review_comment where rulebase_id = ? and revision is null",
            row -> row.getInt("n"),
            rulebase)
        .orElseThrow();
  }

  static void add(Sql sql, long rulebase, String rule, long account, String text)
      throws SQLException {
    sql.change(
        "insert into review_comment (rulebase_id, rule, account_id, text) values (?, ?, ?, ?)",
        rulebase,
        rule,
        account,
        text);
  }

  /** Whether there was one of that account on the draft. */
  static boolean delete(Sql sql, long rulebase, long id, long account) throws SQLException {
    return sql.change(
            "delete from review_comment where rulebase_id = ? and id = ? and account_id = ?"
                + " and revision is null",
            rulebase,
            id,
            account)
        == 1;
  }

  /** Gives the comments on the draft to its revision. */
  static void published(Sql sql, long rulebase, int revision) throws SQLException {
    sql.change(
        "update review_comment set revision = ? where rulebase_id = ? and revision is null",
        revision,
        rulebase);
  }
}
