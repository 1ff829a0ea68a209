package dev.ironsieve.core.edit;

import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.Ownership;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Validity;
import dev.ironsieve.core.rulebase.Rulebase;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;

/**
 * Three-way merge of rules that two people changed: each part of a rule (its name, each criterion,
 * its verdict and so on) that only one of them changed is taken from whoever changed it.
 */
public final class RuleMerge {
  private boolean conflict;

  private RuleMerge() {}

  /**
   * Rules with the changes of both.
   *
   * @param mine the rules as one person wants them, who saw none of the changes since
   * @param inverses what takes back the changes since that concern these rules, oldest first
   * @param now the rulebase with these changes
   * @return empty if both changed one part differently, or if the state before is not known
   */
  public static Optional<List<Rule>> merged(List<Rule> mine, List<Edit> inverses, Rulebase now) {
    Map<String, Rule> before = new HashMap<>();
    for (Edit inverse : inverses) {
      if (!addBefore(before, inverse)) {
        return Optional.empty();
      }
    }
    Map<String, Rule> theirs = new HashMap<>();
    now.rules().forEach(rule -> theirs.put(rule.id(), rule));
    List<Rule> out = new ArrayList<>();
    for (Rule rule : mine) {
      Rule current = theirs.get(rule.id());
      if (current == null) {
        return Optional.empty();
      }
      Optional<Rule> merged = merged(before.getOrDefault(rule.id(), current), rule, current);
      if (merged.isEmpty()) {
        return Optional.empty();
      }
      out.add(merged.get());
    }
    return Optional.of(out);
  }

  /**
   * Notes how rules were before a change, unless an older change told it.
   *
   * @return false for changes that may alter rules without saying how they were
   */
  private static boolean addBefore(Map<String, Rule> before, Edit inverse) {
    return switch (inverse) {
      case Edit.ReplaceRules replace -> {
        replace.rules().forEach(rule -> before.putIfAbsent(rule.id(), rule));
        yield true;
      }
      case Edit.MoveRules move -> true;
      case Edit.Batch batch -> batch.edits().stream().allMatch(part -> addBefore(before, part));
      default -> false;
    };
  }

  /**
   * One rule with the changes of both.
   *
   * @param before the rule that both saw
   * @return empty if both changed one part differently
   */
  public static Optional<Rule> merged(Rule before, Rule mine, Rule theirs) {
    RuleMerge merge = new RuleMerge();
    Map<Coordinate, Criterion<String>> terms = new EnumMap<>(Coordinate.class);
    for (Coordinate coordinate : Coordinate.values()) {
      terms.put(
          coordinate,
          merge.part(before.term(coordinate), mine.term(coordinate), theirs.term(coordinate)));
    }
    Rule merged =
        new Rule(
            mine.id(),
            merge.part(before.name(), mine.name(), theirs.name()),
            merge.part(before.enabled(), mine.enabled(), theirs.enabled()),
            merge.part(before.unfinished(), mine.unfinished(), theirs.unfinished()),
            merge.part(before.observeOnly(), mine.observeOnly(), theirs.observeOnly()),
            merge.part(before.fromZones(), mine.fromZones(), theirs.fromZones()),
            merge.part(before.fromAddresses(), mine.fromAddresses(), theirs.fromAddresses()),
            merge.part(before.toZones(), mine.toZones(), theirs.toZones()),
            merge.part(before.toAddresses(), mine.toAddresses(), theirs.toAddresses()),
            merge.part(before.services(), mine.services(), theirs.services()),
            terms,
            merge.part(before.verdict(), mine.verdict(), theirs.verdict()),
            merge.part(before.opening(), mine.opening(), theirs.opening()),
            merge.part(before.logging(), mine.logging(), theirs.logging()),
            merge.part(before.ratePlan(), mine.ratePlan(), theirs.ratePlan()),
            merge.part(before.notice(), mine.notice(), theirs.notice()),
            merge.part(before.hold(), mine.hold(), theirs.hold()),
            merge.part(before.note(), mine.note(), theirs.note()),
            new Validity(
                merge.part(
                    before.validity().start(), mine.validity().start(), theirs.validity().start()),
                merge.part(
                    before.validity().end(), mine.validity().end(), theirs.validity().end())),
            new Ownership(
                merge.part(
                    before.ownership().owner(),
                    mine.ownership().owner(),
                    theirs.ownership().owner()),
                merge.part(
                    before.ownership().ticket(),
                    mine.ownership().ticket(),
                    theirs.ownership().ticket()),
                merge.part(
                    before.ownership().tags(),
                    mine.ownership().tags(),
                    theirs.ownership().tags())));
    return merge.conflict ? Optional.empty() : Optional.of(merged);
  }

  private <T> T part(T before, T mine, T theirs) {
    if (Objects.equals(before, mine)) {
      return theirs;
    }
    conflict |= !Objects.equals(before, theirs) && !Objects.equals(mine, theirs);
    return mine;
  }
}
