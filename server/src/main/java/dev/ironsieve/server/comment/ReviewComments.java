package dev.ironsieve.server.comment;

import dev.ironsieve.core.model.Names;
import dev.ironsieve.server.account.Account;
import dev.ironsieve.server.draft.Drafts;
import dev.ironsieve.server.jdbc.Database;
import dev.ironsieve.server.jdbc.Sql;
import dev.ironsieve.server.refusal.Refusal;
import jakarta.enterprise.context.ApplicationScoped;
import java.sql.SQLException;
import java.util.List;

/** Comments on the rules of drafts and revisions. */
@ApplicationScoped
public class ReviewComments {
  private static final int MOST = 1000;

  private final Database database;
  private final Drafts drafts;

  ReviewComments(Database database, Drafts drafts) {
    this.database = database;
    this.drafts = drafts;
  }

  /**
   * @param revision null for those on the draft
   */
  List<ReviewComment> all(long rulebase, Integer revision) {
    drafts.state(rulebase); // refuses an unknown one
    return database.inTransaction(
        "reading comments", sql -> CommentStore.all(sql, rulebase, revision));
  }

  void add(long rulebase, NewComment comment, Account account) {
    drafts.state(rulebase);
    String rule = Refusal.require(comment.rule(), "$.rule", "the id of a rule, or nothing");
    String text = Names.checkNote(Refusal.require(comment.text(), "$.text", "a text")).strip();
    if (!rule.isEmpty()) {
      Names.checkId("rule", rule);
    }
    if (text.isEmpty()) {
      throw new Refusal.Invalid("$.text", "a text", "none");
    }
    database.inTransaction(
        "adding a comment",
        sql -> {
          if (CommentStore.count(sql, rulebase) >= MOST) {
            throw new Refusal.WrongState("The draft has %d comments, the most.".formatted(MOST));
          }
          CommentStore.add(sql, rulebase, rule, account.id(), text);
          return null;
        });
  }

  /** Deletes a comment of one's own on the draft. */
  void delete(long rulebase, long id, Account account) {
    if (!database.inTransaction(
        "deleting a comment", sql -> CommentStore.delete(sql, rulebase, id, account.id()))) {
      throw new Refusal.NotFound("There is no such comment of yours on the draft.");
    }
  }

  /** Gives the comments on a draft to the revision that is made of it. */
  public void published(Sql sql, long rulebase, int revision) throws SQLException {
    CommentStore.published(sql, rulebase, revision);
  }
}
