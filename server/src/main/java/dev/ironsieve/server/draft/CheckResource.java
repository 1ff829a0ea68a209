package dev.ironsieve.server.draft;

import dev.ironsieve.core.checks.CheckRegions;
import dev.ironsieve.core.checks.CheckResult;
import dev.ironsieve.core.checks.Coverage;
import dev.ironsieve.core.checks.TestPoints;
import dev.ironsieve.core.matcher.Matcher;
import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.DefaultRule;
import dev.ironsieve.core.model.InvalidModel;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.SavedCheck;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.ruleindex.RuleIndex;
import dev.ironsieve.core.sets.InvalidText;
import dev.ironsieve.core.space.Box;
import dev.ironsieve.core.text.ConnectionLine;
import dev.ironsieve.core.text.ReachLine;
import dev.ironsieve.server.account.Role;
import dev.ironsieve.server.refusal.Refusal;
import jakarta.annotation.security.RolesAllowed;
import jakarta.ws.rs.GET;
import jakarta.ws.rs.POST;
import jakarta.ws.rs.Path;
import jakarta.ws.rs.QueryParam;
import java.util.List;
import java.util.Set;

/** The results of a draft's checks; edits create and change checks. */
@Path("/api/rulebases/{rulebase}/draft/checks")
@RolesAllowed(Role.MAY_VIEW)
public class CheckResource {
  /** Steps of one search for a mistake that is missed. */
  private static final long STEPS = 20_000;

  private static final int MOST_RULES = 1000;

  private final DraftQuestions questions;

  CheckResource(DraftQuestions questions) {
    this.questions = questions;
  }

  /** Each of them, in their order. */
  @GET
  public List<CheckState> run(long rulebase) {
    return questions.checks(rulebase).stream().map(CheckState::of).toList();
  }

  /**
   * Which small mistakes in the rules the checks would notice.
   *
   * @param rules ids of the rules; left out for all
   */
  @GET
  @Path("/coverage")
  public CoverageDocument coverage(long rulebase, @QueryParam("rule") List<String> rules) {
    return questions.askAnalysed(
        rulebase,
        asked -> {
          Rulebase base = asked.draft().rulebase();
          RuleIndex index = asked.analysis().index();
          List<List<Box>> regions = CheckRegions.of(base, index, CheckResult.of(base, index));
          Set<String> wanted = rules.isEmpty() ? null : Set.copyOf(rules);
          return CoverageDocument.of(Coverage.of(index, List.of(), regions, STEPS, wanted), index);
        });
  }

  /**
   * Checks that notice every small mistake in some rules.
   *
   * @param rules ids of the rules
   */
  @GET
  @Path("/suggested")
  public SuggestedChecks suggested(long rulebase, @QueryParam("rule") List<String> rules) {
    if (rules.isEmpty() || rules.size() > MOST_RULES) {
      throw new Refusal.Invalid("rule", "1 to " + MOST_RULES + " ids", rules.size() + "");
    }
    return questions.askAnalysed(
        rulebase,
        asked -> {
          RuleIndex index = asked.analysis().index();
          return SuggestedChecks.of(TestPoints.of(index, STEPS, Set.copyOf(rules)), index);
        });
  }

  /** Reads lines that may become checks; nothing is stored. */
  @POST
  @Path("/read")
  @RolesAllowed(Role.MAY_EDIT)
  public CheckLines read(long rulebase, CheckLines body) {
    Refusal.requireBody(body);
    List<String> lines = Refusal.require(body.lines(), "$.lines", "lines");
    if (lines.size() > CheckLines.MOST) {
      throw new Refusal.Invalid("$.lines", "at most " + CheckLines.MOST, lines.size() + "");
    }
    return questions.askAnalysed(
        rulebase,
        asked -> {
          Rulebase base = asked.draft().rulebase();
          RuleIndex index = asked.analysis().index();
          Matcher matcher = new Matcher(index);
          return new CheckLines(
              lines, lines.stream().map(line -> read(line, base, index, matcher)).toList());
        });
  }

  private static CheckLines.CheckLine read(
      String line, Rulebase rulebase, RuleIndex index, Matcher matcher) {
    try {
      SavedCheck check = new SavedCheck("check", line, Verdict.DROP, null);
      if (check.isSet()) {
        Rule question = ReachLine.parse(check.question(), rulebase);
        String set = check.ofSet(ReachLine.format(question)).connection();
        return new CheckLines.CheckLine(set, null, null);
      }
      Connection connection = ConnectionLine.parse(line, rulebase, index.resolution());
      Verdict verdict = DefaultRule.verdict(matcher.decide(connection).orElse(null));
      return new CheckLines.CheckLine(ConnectionLine.format(connection), verdict.word(), null);
    } catch (InvalidText | InvalidModel e) {
      return new CheckLines.CheckLine(null, null, e.getMessage());
    }
  }
}
