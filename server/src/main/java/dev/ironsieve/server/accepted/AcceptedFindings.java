package dev.ironsieve.server.accepted;

import dev.ironsieve.core.analysis.Finding;
import dev.ironsieve.core.analysis.LiveAnalysis;
import dev.ironsieve.core.model.Names;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.formats.Digest;
import dev.ironsieve.formats.Json;
import dev.ironsieve.formats.document.FromModel;
import dev.ironsieve.server.account.Account;
import dev.ironsieve.server.draft.DraftQuestions;
import dev.ironsieve.server.draft.DraftQuestions.Analysed;
import dev.ironsieve.server.jdbc.Database;
import dev.ironsieve.server.refusal.Refusal;
import jakarta.enterprise.context.ApplicationScoped;
import java.time.LocalDate;
import java.time.format.DateTimeParseException;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/** The accepted findings of drafts. */
@ApplicationScoped
public class AcceptedFindings {
  private final Database database;
  private final DraftQuestions questions;

  AcceptedFindings(Database database, DraftQuestions questions) {
    this.database = database;
    this.questions = questions;
  }

  /** The findings that a draft has and that are accepted as they are. */
  public List<AcceptedFinding> of(long rulebase) {
    List<AcceptedFindingStore.Stored> stored =
        database.inTransaction(
            "reading accepted findings", sql -> AcceptedFindingStore.all(sql, rulebase));
    return questions.askAnalysed(
        rulebase,
        asked ->
            stored.stream()
                .filter(one -> holds(one, asked))
                .map(AcceptedFindingStore.Stored::finding)
                .toList());
  }

  /** The accepted findings, each as the id of its rule and its kind. */
  public Set<String> keys(long rulebase) {
    return of(rulebase).stream()
        .map(one -> one.rule() + " " + one.kind())
        .collect(Collectors.toSet());
  }

  /** How many findings the draft has of each severity, by its word, without the accepted ones. */
  public Map<String, Integer> severities(long rulebase) {
    Set<String> accepted = keys(rulebase);
    return questions.askAnalysed(
        rulebase,
        asked -> {
          Map<String, Integer> out = new LinkedHashMap<>();
          for (Finding finding : asked.analysis().findings()) {
            if (!accepted.contains(finding.rule() + " " + finding.kind().word())) {
              out.merge(finding.kind().severity().word(), 1, Integer::sum);
            }
          }
          return out;
        });
  }

  private static boolean holds(AcceptedFindingStore.Stored stored, Analysed asked) {
    AcceptedFinding accepted = stored.finding();
    boolean due =
        accepted.askAgain() != null
            && !LocalDate.parse(accepted.askAgain()).isAfter(asked.analysis().day());
    return !due
        && find(accepted.rule(), accepted.kind(), asked)
            .filter(finding -> Arrays.equals(digest(finding, asked.analysis()), stored.digest()))
            .isPresent();
  }

  /** The finding of a rule; of several of one kind the first. */
  private static Optional<Finding> find(String rule, String kind, Analysed asked) {
    boolean there =
        asked.draft().rulebase().rules().stream().anyMatch(one -> one.id().equals(rule));
    return there
        ? asked.analysis().findings(rule).stream()
            .filter(finding -> finding.kind().word().equals(kind))
            .findFirst()
        : Optional.empty();
  }

  /** Of the rule and of its causes, with what is found of them. */
  private static byte[] digest(Finding finding, LiveAnalysis analysis) {
    List<Object> parts =
        Stream.concat(Stream.of(finding.rule()), finding.causes().stream())
            .map(id -> rule(id, analysis))
            .map(rule -> (Object) FromModel.rule(rule))
            .toList();
    return Digest.of(Json.write(List.of(finding.words(), parts)));
  }

  private static Rule rule(String id, LiveAnalysis analysis) {
    return analysis.index().rule(analysis.index().handle(id));
  }

  /**
   * Accepts a finding as it is now.
   *
   * @throws Refusal.WrongState if the draft has no such finding
   */
  void accept(long rulebase, NewAcceptance wanted, Account account) {
    String rule = Refusal.require(wanted.rule(), "$.rule", "the id of a rule");
    String kind = Refusal.require(wanted.kind(), "$.kind", "a kind of finding");
    String reason = Refusal.require(wanted.reason(), "$.reason", "a reason");
    if (Names.checkNote(reason).isBlank()) {
      throw new Refusal.Invalid("$.reason", "a reason", "none");
    }
    LocalDate askAgain = date(wanted.askAgain());
    byte[] digest =
        questions.askAnalysed(
            rulebase,
            asked -> {
              if (askAgain != null && !askAgain.isAfter(asked.analysis().day())) {
                throw new Refusal.Invalid("$.askAgain", "a day to come", wanted.askAgain());
              }
              return find(rule, kind, asked)
                  .map(finding -> digest(finding, asked.analysis()))
                  .orElseThrow(
                      () -> new Refusal.WrongState("The draft has no such finding any more."));
            });
    database.inTransaction(
        "accepting a finding",
        sql -> {
          AcceptedFindingStore.put(sql, rulebase, wanted, askAgain, digest, account.id());
          return null;
        });
  }

  private static LocalDate date(String text) {
    try {
      return text == null ? null : LocalDate.parse(text);
    } catch (DateTimeParseException e) {
      throw new Refusal.Invalid("$.askAgain", "a date such as 2027-03-31", text);
    }
  }

  /**
   * Lets a finding count again.
   *
   * @throws Refusal.NotFound if it is not accepted
   */
  void withdraw(long rulebase, String rule, String kind) {
    if (!database.inTransaction(
        "letting a finding count again",
        sql -> AcceptedFindingStore.delete(sql, rulebase, rule, kind))) {
      throw new Refusal.NotFound("This finding is not accepted.");
    }
  }
}
