package dev.ironsieve.server.draft;

import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Zone;
import dev.ironsieve.core.reach.ReachTable;
import dev.ironsieve.core.reach.RuleShares;
import dev.ironsieve.core.reach.ZoneMatrix;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.ruleindex.RuleIndex;
import dev.ironsieve.core.text.ReachLine;
import dev.ironsieve.server.account.Role;
import dev.ironsieve.server.refusal.Refusal;
import jakarta.annotation.security.RolesAllowed;
import jakarta.ws.rs.GET;
import jakarta.ws.rs.Path;
import jakarta.ws.rs.QueryParam;
import java.util.List;

/** Reach questions to a draft. */
@Path("/api/rulebases/{rulebase}/draft/reach")
@RolesAllowed(Role.MAY_VIEW)
public class ReachResource {
  /** Most zones of a matrix. */
  private static final int MOST_ZONES = 40;

  /** Connections from which shares are estimated. */
  private static final int SAMPLES = 20_000;

  private final DraftQuestions questions;

  ReachResource(DraftQuestions questions) {
    this.questions = questions;
  }

  /**
   * What decides the connections of a question, and which part each rule decides.
   *
   * @param question one line, such as {@code who can reach datacentre from offices}
   */
  @GET
  public ReachDocument ask(long rulebase, @QueryParam("question") String question) {
    String line = Refusal.require(question, "question", "a question on one line");
    return questions.askAnalysed(
        rulebase,
        asked -> {
          Rulebase rules = asked.draft().rulebase();
          Rule pattern = ReachLine.parse(line, rules);
          return asked.withRoom(
              index ->
                  ReachDocument.of(
                      pattern, ReachTable.ask(index, pattern, ReachTable.STEPS), index));
        });
  }

  /**
   * How much is open from each zone to each other one.
   *
   * @param zones those that are compared; left out for the first {@value #MOST_ZONES}
   */
  @GET
  @Path("/matrix")
  public ZoneMatrixDocument matrix(long rulebase, @QueryParam("zone") List<String> zones) {
    return questions.askAnalysed(
        rulebase,
        asked -> {
          List<String> known = asked.draft().rulebase().zones().stream().map(Zone::name).toList();
          List<String> wanted = zones.isEmpty() ? known : zones;
          if (!known.containsAll(wanted)) {
            String unknown = wanted.stream().filter(zone -> !known.contains(zone)).toList().get(0);
            throw new Refusal.NotFound("There is no zone called \"" + unknown + "\" here.");
          }
          List<String> shown = wanted.subList(0, Math.min(MOST_ZONES, wanted.size()));
          return ZoneMatrixDocument.of(
              asked.withRoom(index -> ZoneMatrix.of(index, shown)), wanted.size());
        });
  }

  /** The share of all kinds of connections that each rule decides. */
  @GET
  @Path("/shares")
  public RuleSharesDocument shares(long rulebase) {
    return questions.askAnalysed(
        rulebase,
        asked -> {
          RuleIndex index = asked.analysis().index();
          return RuleSharesDocument.of(RuleShares.of(index, SAMPLES), index);
        });
  }
}
