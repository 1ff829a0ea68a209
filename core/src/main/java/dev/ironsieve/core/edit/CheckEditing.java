package dev.ironsieve.core.edit;

import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Connection.Endpoint;
import dev.ironsieve.core.model.InvalidModel;
import dev.ironsieve.core.model.Names;
import dev.ironsieve.core.model.SavedCheck;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.sets.InvalidText;
import dev.ironsieve.core.text.ConnectionLine;
import java.util.ArrayList;
import java.util.List;
import java.util.function.UnaryOperator;

/** Creates, changes and deletes saved checks, and renames zones in them. */
final class CheckEditing {
  private CheckEditing() {}

  static Rulebase put(Rulebase before, Edit.PutCheck put) {
    SavedCheck given = put.check();
    SavedCheck check;
    try {
      check = given.of(ConnectionLine.format(ConnectionLine.parse(given.connection(), before)));
    } catch (InvalidText e) {
      throw new InvalidModel(
          "check \"" + given.name() + "\": connection, character " + (e.offset() + 1),
          e.expected(),
          e.found().isEmpty() ? "nothing" : e.found());
    }
    List<SavedCheck> checks =
        ObjectEditing.placed(
            Touched.CHECK, before.checks(), SavedCheck::name, check, put.replaces());
    if (put.replaces() == null && put.before() != null) {
      checks.removeLast();
      checks.add(place(checks, put.before()), check);
    }
    return before.withChecks(checks);
  }

  /** The place above the check of that name; the end if it is gone. */
  private static int place(List<SavedCheck> checks, String name) {
    int at = 0;
    while (at < checks.size() && !Names.key(checks.get(at).name()).equals(Names.key(name))) {
      at++;
    }
    return at;
  }

  static Rulebase without(Rulebase before, String name) {
    List<SavedCheck> checks = new ArrayList<>(before.checks());
    if (!checks.removeIf(check -> Names.key(check.name()).equals(Names.key(name)))) {
      throw new MissingTarget(Touched.CHECK, name);
    }
    return before.withChecks(checks);
  }

  /** After a zone was renamed; checks that no longer read stay as they are. */
  static Rulebase renamingZones(Rulebase before, Rulebase after, UnaryOperator<String> rename) {
    if (before.checks().isEmpty()) {
      return after;
    }
    return after.withChecks(
        before.checks().stream().map(check -> renamed(check, before, rename)).toList());
  }

  private static SavedCheck renamed(
      SavedCheck check, Rulebase before, UnaryOperator<String> rename) {
    try {
      Connection c = ConnectionLine.parse(check.connection(), before);
      return check.of(
          ConnectionLine.format(
              new Connection(
                  renamed(c.from(), rename),
                  renamed(c.to(), rename),
                  c.protocol(),
                  c.detail(),
                  c.sourcePort(),
                  c.terms())));
    } catch (InvalidText e) {
      return check;
    }
  }

  private static Endpoint renamed(Endpoint end, UnaryOperator<String> rename) {
    return end.zone() == null ? end : new Endpoint(rename.apply(end.zone()), end.address());
  }
}
