package dev.ironsieve.gateway;

import dev.ironsieve.core.matcher.Matcher;
import dev.ironsieve.core.matcher.Stage;
import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.DefaultRule;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.rulebase.Rulebase;
import java.util.List;
import java.util.Optional;

/**
 * The decision on a connection as it unfolds: the first packet, the handshake, the content. Until
 * it is settled, the connection is let through.
 *
 * @param rule that decides; null for the default rule
 * @param stage at which it was settled, or the last one if it never was; null if it was let through
 *     from the first packet to the last, so that it makes no difference
 */
record StagedDecision(Rule rule, Verdict verdict, Stage stage) {

  /** Whether more than the first packet matters: some rule asks for what it does not tell. */
  static boolean unfolds(Rulebase rulebase) {
    return rulebase.rules().stream()
        .filter(Rule::isInForce)
        .anyMatch(
            rule ->
                !rule.term(Coordinate.SITE).isAny()
                    || !rule.term(Coordinate.APPLICATION).isAny()
                    || !rule.term(Coordinate.FILE_KIND).isAny());
  }

  /**
   * Decides a connection.
   *
   * @param named as rules name it, with all that there is to know
   * @param unfolds of its rulebase
   */
  static StagedDecision of(Connection named, Matcher matcher, boolean unfolds) {
    Optional<Rule> whole = matcher.decide(named);
    Verdict verdict = DefaultRule.verdict(whole.orElse(null));
    if (!unfolds) {
      return new StagedDecision(whole.orElse(null), verdict, Stage.FIRST_PACKET);
    }
    if (verdict.letsThrough() && !matcher.mayStayHidden(named)) {
      return new StagedDecision(whole.orElse(null), verdict, null);
    }
    List<Stage.Answer> stages = matcher.stages(named);
    Stage.Answer last = stages.getLast();
    if (last.settled()) {
      return new StagedDecision(whole.orElse(null), last.verdict(), last.stage());
    }
    // Sealed for ever: the rules that may decide stay open, and the first that allows lets it go
    // on.
    Rule letting =
        last.open().stream()
            .filter(rule -> rule.verdict().letsThrough())
            .findFirst()
            .orElse(last.decides());
    return new StagedDecision(letting, DefaultRule.verdict(letting), last.stage());
  }

  /** The word of the stage; null if it makes no difference. */
  String stageWord() {
    return stage == null ? null : stage.word();
  }

  /** About how many packets pass before a connection is refused, at most all of them. */
  long packetsBefore(long all) {
    int passed =
        switch (stage) {
          case FIRST_PACKET -> 1;
          case HANDSHAKE -> 6;
          case CONTENT -> 20;
        };
    return Math.min(passed, all);
  }
}
