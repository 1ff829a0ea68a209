package dev.ironsieve.server.draft;

import dev.ironsieve.core.checks.CheckResult;
import dev.ironsieve.core.difference.Aspect;
import dev.ironsieve.core.difference.Difference;
import dev.ironsieve.core.difference.Differences;
import dev.ironsieve.core.edit.Edit;
import dev.ironsieve.core.edition.EditionChange;
import dev.ironsieve.core.edition.FeedChange;
import dev.ironsieve.core.edition.RuleChange;
import dev.ironsieve.core.matcher.WitnessShortener;
import dev.ironsieve.core.model.DefaultRule;
import dev.ironsieve.core.model.Feed;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.model.Vocabulary;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.text.ConnectionLine;
import dev.ironsieve.server.capture.ReclassifiedConnection;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Supplier;
import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * The effect on a draft of another edition of the catalogue, of the directory or of a feed.
 *
 * @param edition the new edition
 * @param added names of new applications, people or sets
 * @param removed names of removed ones
 * @param changed the changes of each that stays, in words, by its name
 * @param rules the rules whose match changes
 * @param verdicts kinds of connections that get another verdict, the most first; not computed while
 *     a rule uses a name that the edition does not have
 * @param complete whether these are all verdicts that change
 * @param checks those whose results change; not computed while a rule uses a name that the edition
 *     does not have
 */
public record EditionEffect(
    @Schema(required = true) String edition,
    @Schema(required = true) List<String> added,
    @Schema(required = true) List<String> removed,
    @Schema(required = true) Map<String, List<String>> changed,
    @Schema(required = true) List<RuleEffect> rules,
    @Schema(required = true) List<VerdictEffect> verdicts,
    @Schema(required = true) boolean complete,
    @Schema(required = true) List<CheckFlip> checks,
    @Schema(required = true) List<ReclassifiedConnection> recognised) {
  private static final int MOST_TOLD = 100; // of what one rule or set gains or loses

  /**
   * The change of one rule's match.
   *
   * @param gained uses, people, addresses or hosts that the rule would match; the first {@value
   *     #MOST_TOLD}, then the number of further ones
   * @param lost those that it would no longer match
   * @param unknown names in the rule that the edition does not have
   */
  public record RuleEffect(
      @Schema(required = true) String id,
      @Schema(required = true) String name,
      @Schema(required = true) List<String> gained,
      @Schema(required = true) List<String> lost,
      @Schema(required = true) List<String> unknown) {}

  /**
   * @param what what the connections are, in words, an axis each
   * @param beforeRule id of the rule that decides the witness now; nothing for the default rule
   * @param witness one of them
   */
  public record VerdictEffect(
      @Schema(required = true) List<String> what,
      @Schema(
              required = true,
              enumeration = {"allow", "drop", "reject", "caution"})
          String before,
      String beforeRule,
      @Schema(
              required = true,
              enumeration = {"allow", "drop", "reject", "caution"})
          String after,
      String afterRule,
      @Schema(required = true) String witness) {}

  /**
   * A check that holds before or after, and not both.
   *
   * @param connection that it tries
   * @param holds whether it would hold
   * @param before the verdict now; nothing if the connection cannot be tried
   */
  public record CheckFlip(
      @Schema(required = true) String name,
      @Schema(required = true) String connection,
      @Schema(required = true) boolean holds,
      String before,
      String after) {
    public static CheckFlip of(CheckResult.Flip flip) {
      return new CheckFlip(
          flip.before().check().name(),
          flip.before().check().connection(),
          flip.after().holds(),
          word(flip.before().verdict()),
          word(flip.after().verdict()));
    }

    private static String word(Verdict verdict) {
      return verdict == null ? null : verdict.word();
    }
  }

  /** A rulebase as it is and as it would be, with the same values in both. */
  private record Both(Rulebase before, Rulebase after) {}

  /**
   * The effect on a rulebase.
   *
   * @param change the change of the edition itself
   * @param before the vocabulary now
   * @param after the vocabulary then
   */
  static EditionEffect of(
      Rulebase rulebase, EditionChange change, Vocabulary before, Vocabulary after) {
    return of(
        after.edition(),
        change,
        RuleChange.of(rulebase.rules(), before, after),
        () -> both(rulebase, before, after));
  }

  /** The effect of another edition of a feed that the rulebase has one of. */
  static EditionEffect of(Rulebase rulebase, Feed before, Feed after) {
    FeedChange.Compared compared = FeedChange.compare(rulebase, after);
    return of(
        after.edition(),
        change(before, after),
        compared.rules(),
        () -> new Both(compared.before(), compared.after()));
  }

  /** The same, and what is recognised otherwise. */
  EditionEffect with(List<ReclassifiedConnection> recognised) {
    return new EditionEffect(
        edition, added, removed, changed, rules, verdicts, complete, checks, recognised);
  }

  private static EditionChange change(Feed before, Feed after) {
    List<String> added = new ArrayList<>();
    List<String> removed = new ArrayList<>();
    Map<String, List<String>> changed = new LinkedHashMap<>();
    for (FeedChange.SetChange set : FeedChange.sets(before, after)) {
      if (before.set(set.set()) == null) {
        added.add(set.set());
      } else if (after.set(set.set()) == null) {
        removed.add(set.set());
      } else {
        List<String> words = new ArrayList<>();
        set.gained().forEach(entry -> words.add("+" + entry));
        set.lost().forEach(entry -> words.add("−" + entry));
        changed.put(set.set(), some(words));
      }
    }
    return new EditionChange(added, removed, changed);
  }

  private static EditionEffect of(
      String edition, EditionChange change, List<RuleChange> changes, Supplier<Both> comparing) {
    List<RuleEffect> rules =
        changes.stream()
            .map(
                effect ->
                    new RuleEffect(
                        effect.rule().id(),
                        effect.rule().name(),
                        some(effect.gained()),
                        some(effect.lost()),
                        effect.unknown()))
            .toList();
    boolean fits = rules.stream().allMatch(effect -> effect.unknown().isEmpty());
    Both both = fits ? comparing.get() : null;
    Difference difference =
        both == null ? null : Differences.between(both.before, both.after, Aspect.VERDICT);
    return new EditionEffect(
        edition,
        change.added(),
        change.removed(),
        change.changed(),
        rules,
        difference == null ? List.of() : verdicts(difference),
        difference != null && difference.complete(),
        both == null
            ? List.of()
            : CheckResult.flips(both.before, both.after, difference).stream()
                .map(CheckFlip::of)
                .toList(),
        List.of());
  }

  /** The first of many, and how many more there are. */
  private static List<String> some(List<String> all) {
    if (all.size() <= MOST_TOLD) {
      return all;
    }
    List<String> out = new ArrayList<>(all.subList(0, MOST_TOLD));
    out.add((all.size() - MOST_TOLD) + " more");
    return out;
  }

  private static Both both(Rulebase rulebase, Vocabulary before, Vocabulary after) {
    List<String> values = after.valuesWith(before);
    return new Both(
        new Edit.PutVocabulary(before.over(values)).apply(rulebase),
        new Edit.PutVocabulary(after.over(values)).apply(rulebase));
  }

  /** The verdicts that change, the largest part first. */
  public static List<VerdictEffect> verdicts(Difference difference) {
    return difference.parts().stream().map(part -> verdict(part, difference)).toList();
  }

  private static VerdictEffect verdict(Difference.ChangedBox part, Difference difference) {
    return new VerdictEffect(
        difference.words(part),
        word(part.before()),
        part.before() == null ? null : part.before().id(),
        word(part.after()),
        part.after() == null ? null : part.after().id(),
        ConnectionLine.format(
            WitnessShortener.deciding(part.witness(), difference.before(), difference.after())));
  }

  private static String word(Rule rule) {
    return DefaultRule.verdict(rule).word();
  }
}
