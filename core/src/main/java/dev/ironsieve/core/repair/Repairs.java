package dev.ironsieve.core.repair;

import dev.ironsieve.core.analysis.Finding;
import dev.ironsieve.core.analysis.LiveAnalysis;
import dev.ironsieve.core.analysis.Merging;
import dev.ironsieve.core.analysis.Slots;
import dev.ironsieve.core.difference.Aspect;
import dev.ironsieve.core.difference.Differences;
import dev.ironsieve.core.edit.Edit;
import dev.ironsieve.core.edit.Place;
import dev.ironsieve.core.model.Opening;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Rulebase;
import java.util.ArrayList;
import java.util.List;

/** Which repairs a finding has. */
public final class Repairs {
  private final LiveAnalysis analysis;
  private final Rulebase base;
  private final List<Repair> found = new ArrayList<>();

  private Repairs(LiveAnalysis analysis) {
    this.analysis = analysis;
    this.base = analysis.rulebase();
  }

  /**
   * The repairs that remove a finding of the analysis as it stands, the least far-reaching first;
   * none for what needs a person's judgement (too broad, an unmet need, undecided) or is usual
   * (generalised).
   */
  public static List<Repair> of(Finding finding, LiveAnalysis analysis) {
    Repairs repairs = new Repairs(analysis);
    switch (finding.kind()) {
      case EMPTY, REDUNDANT_ABOVE, REDUNDANT_BELOW -> repairs.delete(finding);
      case SHADOWED -> {
        repairs.delete(finding);
        repairs.moveUp(finding);
      }
      case CORRELATED -> repairs.moveAbove(finding.rule(), finding.causes().getFirst());
      case MERGEABLE -> repairs.merge(finding);
      case UNSEEN_FEATURE -> repairs.open(finding);
      case EXPIRED -> repairs.delete(finding);
      case GENERALISED, TOO_BROAD, UNMET_NEED, ENDS_SOON, UNDECIDED -> {}
    }
    return List.copyOf(repairs.found);
  }

  private void add(String says, Edit edit) {
    found.add(
        new Repair(
            says,
            edit,
            Differences.between(
                analysis.order(), base, edit.apply(base), Aspect.VERDICT, Differences.STEPS)));
  }

  private Rule rule(String id) {
    return analysis.order().rule(analysis.order().slot(id));
  }

  private void delete(Finding finding) {
    add(
        "Delete \"" + rule(finding.rule()).name() + "\"",
        new Edit.DeleteRules(List.of(finding.rule())));
  }

  private void open(Finding finding) {
    Rule sealed = rule(finding.rule());
    add(
        "Open the encrypted connections that \"%s\" decides".formatted(sealed.name()),
        new Edit.ReplaceRules(List.of(sealed.leaving(Opening.OPENED))));
  }

  /** Above the first rule with another verdict that takes something of it. */
  private void moveUp(Finding finding) {
    Slots slots = analysis.slots(finding.rule());
    if (!slots.hurdles().isEmpty()) {
      moveAbove(finding.rule(), slots.hurdles().getFirst().rule());
    }
  }

  private void moveAbove(String rule, String other) {
    add(
        "Move \"%s\" above \"%s\"".formatted(rule(rule).name(), rule(other).name()),
        new Edit.MoveRules(List.of(rule), new Place.Above(other)));
  }

  private void merge(Finding finding) {
    Rule upper = rule(finding.rule());
    Rule lower = rule(finding.causes().getFirst());
    Merging.merged(upper, lower)
        .ifPresent(
            merged ->
                add(
                    "Make \"%s\" and \"%s\" one rule".formatted(upper.name(), lower.name()),
                    new Edit.Batch(
                        List.of(
                            new Edit.ReplaceRules(List.of(merged)),
                            new Edit.DeleteRules(List.of(lower.id()))))));
  }
}
