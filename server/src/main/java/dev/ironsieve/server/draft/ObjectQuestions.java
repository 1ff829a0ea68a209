package dev.ironsieve.server.draft;

import dev.ironsieve.core.bandwidth.GuaranteedBandwidth;
import dev.ironsieve.core.difference.Aspect;
import dev.ironsieve.core.difference.Difference;
import dev.ironsieve.core.difference.Differences;
import dev.ironsieve.core.edit.Edit;
import dev.ironsieve.core.edit.Removal;
import dev.ironsieve.core.equivalence.EquivalentObjects;
import dev.ironsieve.core.model.AddressItem;
import dev.ironsieve.core.model.ObjectKind;
import dev.ironsieve.core.model.ServiceLiteral;
import dev.ironsieve.core.reach.HoldingObjects;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.sets.InvalidText;
import jakarta.enterprise.context.ApplicationScoped;
import java.util.List;

/** Questions about the objects of a draft, and their removal. */
@ApplicationScoped
class ObjectQuestions {
  private final Drafts drafts;
  private final DraftQuestions questions;

  ObjectQuestions(Drafts drafts, DraftQuestions questions) {
    this.drafts = drafts;
    this.questions = questions;
  }

  /** Groups of objects of one kind with the same meaning. */
  List<AlikeObjects> alike(long rulebase) {
    return questions.askRulebase(rulebase, EquivalentObjects::in).stream()
        .map(group -> new AlikeObjects(group.kind().word(), group.names()))
        .toList();
  }

  /**
   * The objects that hold an address or a service.
   *
   * @throws InvalidText if it is neither
   */
  List<HoldingObject> holding(long rulebase, String value) {
    boolean address =
        value.indexOf(':') >= 0 || !value.isEmpty() && Character.isDigit(value.charAt(0));
    if (!address && ServiceLiteral.looksLikeOne(value)) {
      ServiceLiteral service = ServiceLiteral.parse(value);
      return questions
          .askAnalysed(
              rulebase,
              asked ->
                  HoldingObjects.withServices(
                      asked.draft().rulebase(), asked.analysis().index().resolution(), service))
          .stream()
          .map(name -> new HoldingObject(ObjectKind.SERVICE.word(), name))
          .toList();
    }
    if (address && AddressItem.parse(value) instanceof AddressItem.Literal addresses) {
      return questions
          .askAnalysed(
              rulebase,
              asked ->
                  HoldingObjects.withAddresses(
                      asked.draft().rulebase(), asked.analysis().index().resolution(), addresses))
          .stream()
          .map(name -> new HoldingObject(ObjectKind.ADDRESS.word(), name))
          .toList();
    }
    throw new InvalidText(0, "an address or a service", value);
  }

  /** The sum of the floors of all rate plans. */
  FloorSum floors(long rulebase) {
    return questions.askRulebase(rulebase, base -> FloorSum.of(base, GuaranteedBandwidth.of(base)));
  }

  /** The same after an edit; nothing is changed. */
  FloorSum floorsAfter(long rulebase, Edit edit) {
    return questions.askRulebase(
        rulebase,
        base -> {
          Rulebase next = edit.apply(base);
          return FloorSum.of(next, GuaranteedBandwidth.of(next));
        });
  }

  /** The effect of deleting an object; nothing is changed. */
  RemovalEffect removalEffect(long rulebase, ObjectKind kind, String name) {
    return questions.askRulebase(
        rulebase,
        base -> {
          Removal removal = Removal.of(base, kind, name);
          removal.edit().apply(base); // refused if there is no such object
          Difference difference =
              Differences.between(base, removal.lessInUse(base), Aspect.VERDICT);
          return RemovalEffect.of(removal, difference);
        });
  }

  /** Deletes an object, also from the rules and groups that use it. */
  ChangeDocument remove(
      long rulebase, long version, ObjectKind kind, String name, Drafts.Requester by) {
    Removal removal = Removal.of(drafts.rulebase(rulebase), kind, name);
    return drafts.edit(rulebase, version, removal.edit(), by);
  }
}
