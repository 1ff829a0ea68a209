package dev.ironsieve.core.edit;

import dev.ironsieve.core.model.AddressObject;
import dev.ironsieve.core.model.Names;
import dev.ironsieve.core.model.Notice;
import dev.ironsieve.core.model.ObjectKind;
import dev.ironsieve.core.model.RatePlan;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.SavedCheck;
import dev.ironsieve.core.model.Section;
import dev.ironsieve.core.model.ServiceObject;
import dev.ironsieve.core.model.TermObject;
import dev.ironsieve.core.model.Vocabulary;
import dev.ironsieve.core.model.Zone;
import dev.ironsieve.core.rulebase.Rulebase;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;

/** Computes the inverse of an edit, which undoes it. */
final class Inverse {
  private Inverse() {}

  static Optional<Edit> of(Edit edit, Rulebase before) {
    return switch (edit) {
      case Edit.InsertRules insert ->
          Optional.of(new Edit.DeleteRules(insert.rules().stream().map(Rule::id).toList()));
      case Edit.ReplaceRules replace ->
          Optional.of(new Edit.ReplaceRules(asTheyWere(before, replace)));
      case Edit.DeleteRules delete ->
          Optional.of(
              batch(
                  inOldPlaces(
                      before,
                      new HashSet<>(delete.ids()),
                      (rule, place) -> new Edit.InsertRules(List.of(rule), place))));
      case Edit.MoveRules move ->
          Optional.of(
              batch(
                  inOldPlaces(
                      before,
                      new HashSet<>(move.ids()),
                      (rule, place) -> new Edit.MoveRules(List.of(rule.id()), place))));
      case Edit.InsertSection insert -> Optional.of(new Edit.DeleteSection(insert.id()));
      case Edit.RenameSection rename ->
          Optional.of(
              new Edit.RenameSection(
                  rename.id(),
                  before.sections().get(Editing.sectionNumber(before, rename.id())).name()));
      case Edit.MoveSection move -> Optional.of(moveBack(before, move.id()));
      case Edit.DeleteSection delete -> Optional.of(insertAgain(before, delete.id()));
      case Edit.PutZone put ->
          Optional.of(
              find(before.zones(), Zone::name, put.replaces())
                  .<Edit>map(old -> new Edit.PutZone(old, put.zone().name()))
                  .orElseGet(() -> new Edit.DeleteObject(ObjectKind.ZONE, put.zone().name())));
      case Edit.PutAddress put ->
          Optional.of(
              find(before.addresses(), AddressObject::name, put.replaces())
                  .<Edit>map(old -> new Edit.PutAddress(old, put.address().name()))
                  .orElseGet(
                      () -> new Edit.DeleteObject(ObjectKind.ADDRESS, put.address().name())));
      case Edit.PutService put ->
          Optional.of(
              find(before.services(), ServiceObject::name, put.replaces())
                  .<Edit>map(old -> new Edit.PutService(old, put.service().name()))
                  .orElseGet(
                      () -> new Edit.DeleteObject(ObjectKind.SERVICE, put.service().name())));
      case Edit.PutTerms put ->
          Optional.of(
              find(before.termObjects(put.object().kind()), TermObject::name, put.replaces())
                  .<Edit>map(old -> new Edit.PutTerms(old, put.object().name()))
                  .orElseGet(
                      () -> new Edit.DeleteObject(put.object().kind(), put.object().name())));
      case Edit.PutRatePlan put ->
          Optional.of(
              find(before.gatewaySettings().ratePlans(), RatePlan::name, put.replaces())
                  .<Edit>map(old -> new Edit.PutRatePlan(old, put.plan().name()))
                  .orElseGet(() -> new Edit.DeleteObject(ObjectKind.RATE_PLAN, put.plan().name())));
      case Edit.PutNotice put ->
          Optional.of(
              find(before.gatewaySettings().notices(), Notice::name, put.replaces())
                  .<Edit>map(old -> new Edit.PutNotice(old, put.notice().name()))
                  .orElseGet(() -> new Edit.DeleteObject(ObjectKind.NOTICE, put.notice().name())));
      case Edit.SetLineCapacity set ->
          Optional.of(new Edit.SetLineCapacity(before.gatewaySettings().lineCapacity()));
      case Edit.SetTimeZone set ->
          Optional.of(new Edit.SetTimeZone(before.gatewaySettings().timeZone()));
      case Edit.SetBreadth set ->
          Optional.of(new Edit.SetBreadth(before.gatewaySettings().breadth()));
      case Edit.PutCheck put ->
          Optional.of(
              find(before.checks(), SavedCheck::name, put.replaces())
                  .<Edit>map(old -> new Edit.PutCheck(old, put.check().name()))
                  .orElseGet(() -> new Edit.DeleteCheck(put.check().name())));
      case Edit.DeleteCheck delete ->
          find(before.checks(), SavedCheck::name, delete.name())
              .map(old -> new Edit.PutCheck(old, null, below(old, before.checks())));
      case Edit.DeleteObject delete -> makeAgain(before, delete);
      case Edit.PutVocabulary put -> Optional.of(vocabularyAsItWas(before, put.vocabulary()));
      case Edit.DeleteVocabulary delete ->
          before.vocabulary(delete.coordinate()).map(Edit.PutVocabulary::new);
      case Edit.PutFeed put ->
          Optional.of(
              before
                  .feed(put.feed().name())
                  .<Edit>map(Edit.PutFeed::new)
                  .orElseGet(() -> new Edit.DeleteFeed(put.feed().name())));
      case Edit.DeleteFeed delete -> before.feed(delete.name()).map(Edit.PutFeed::new);
      case Edit.Restore restore ->
          restore.apply(before).equals(before)
              ? Optional.empty()
              : Optional.of(new Edit.Restore("the state before that", before));
      case Edit.PutCommon put ->
          Objects.equals(before.common().orElse(null), put.common())
              ? Optional.empty()
              : Optional.of(new Edit.PutCommon(before.common().orElse(null)));
      case Edit.Batch batch -> ofBatch(before, batch);
    };
  }

  /** Name of the check below one; null if it is the last. */
  private static String below(SavedCheck check, List<SavedCheck> checks) {
    int next = checks.indexOf(check) + 1;
    return next < checks.size() ? checks.get(next).name() : null;
  }

  private static Edit vocabularyAsItWas(Rulebase before, Vocabulary next) {
    return before
        .vocabulary(next.coordinate())
        .<Edit>map(Edit.PutVocabulary::new)
        .orElseGet(() -> new Edit.DeleteVocabulary(next.coordinate()));
  }

  private static Edit batch(List<Edit> edits) {
    return edits.size() == 1 ? edits.getFirst() : new Edit.Batch(edits);
  }

  private static List<Rule> asTheyWere(Rulebase before, Edit.ReplaceRules replace) {
    List<String> ids = replace.rules().stream().map(Rule::id).toList();
    return List.copyOf(Editing.requireRules(before, ids).values());
  }

  private interface Put {
    Edit at(Rule rule, Place place);
  }

  /** From top to bottom, so that the rule above is back before the rule below refers to it. */
  private static List<Edit> inOldPlaces(Rulebase before, Set<String> ids, Put put) {
    List<Edit> out = new ArrayList<>();
    for (Section section : before.sections()) {
      Place place = new Place.StartOf(section.id());
      for (Rule rule : section.rules()) {
        if (ids.contains(rule.id())) {
          out.add(put.at(rule, place));
        }
        place = new Place.Below(rule.id());
      }
    }
    return out;
  }

  private static Edit insertAgain(Rulebase before, String id) {
    int at = Editing.sectionNumber(before, id);
    boolean last = at == before.sections().size() - 1;
    Section section = before.sections().get(at);
    return new Edit.InsertSection(
        id, section.name(), last ? null : before.sections().get(at + 1).id(), section.tail());
  }

  private static Edit moveBack(Rulebase before, String id) {
    int next = Editing.sectionNumber(before, id) + 1;
    boolean last = next == before.sections().size();
    return new Edit.MoveSection(id, last ? null : before.sections().get(next).id());
  }

  private static Optional<Edit> makeAgain(Rulebase before, Edit.DeleteObject delete) {
    return switch (delete.kind()) {
      case ZONE ->
          find(before.zones(), Zone::name, delete.name()).map(o -> new Edit.PutZone(o, null));
      case ADDRESS ->
          find(before.addresses(), AddressObject::name, delete.name())
              .map(o -> new Edit.PutAddress(o, null));
      case SERVICE ->
          find(before.services(), ServiceObject::name, delete.name())
              .map(o -> new Edit.PutService(o, null));
      case RATE_PLAN ->
          find(before.gatewaySettings().ratePlans(), RatePlan::name, delete.name())
              .map(o -> new Edit.PutRatePlan(o, null));
      case NOTICE ->
          find(before.gatewaySettings().notices(), Notice::name, delete.name())
              .map(o -> new Edit.PutNotice(o, null));
      case HOST_LIST, SCHEDULE, DEVICE_STATE ->
          find(before.termObjects(delete.kind()), TermObject::name, delete.name())
              .map(o -> new Edit.PutTerms(o, null));
    };
  }

  private static <T> Optional<T> find(List<T> objects, Function<T, String> nameOf, String name) {
    return objects.stream()
        .filter(o -> name != null && Names.key(nameOf.apply(o)).equals(Names.key(name)))
        .findFirst();
  }

  private static Optional<Edit> ofBatch(Rulebase before, Edit.Batch batch) {
    List<Edit> out = new ArrayList<>();
    Rulebase state = before;
    for (Edit part : batch.edits()) {
      of(part, state).ifPresent(inverse -> out.addFirst(inverse));
      state = part.apply(state);
    }
    return out.isEmpty() ? Optional.empty() : Optional.of(batch(out));
  }
}
