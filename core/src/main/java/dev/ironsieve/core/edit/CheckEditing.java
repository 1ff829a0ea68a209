package dev.ironsieve.core.edit;

import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Connection.Endpoint;
import dev.ironsieve.core.model.InvalidModel;
import dev.ironsieve.core.model.Names;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.SavedCheck;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.sets.InvalidText;
import dev.ironsieve.core.text.ConnectionLine;
import dev.ironsieve.core.text.ReachLine;
import java.util.ArrayList;
import java.util.List;
import java.util.function.UnaryOperator;

/** Creates, changes and deletes saved checks, and renames in them what they name. */
final class CheckEditing {
  private CheckEditing() {}

  static Rulebase put(Rulebase before, Edit.PutCheck put) {
    SavedCheck given = put.check();
    SavedCheck check;
    try {
      check = normalised(given, before);
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

  /** The check with its connection, or its set, as the product writes it. */
  private static SavedCheck normalised(SavedCheck given, Rulebase before) {
    if (!given.isSet()) {
      return given.of(ConnectionLine.format(ConnectionLine.parse(given.connection(), before)));
    }
    try {
      return given.ofSet(ReachLine.format(ReachLine.parse(given.question(), before)));
    } catch (InvalidText e) {
      throw e.shifted(given.connection().length() - given.question().length());
    }
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

  /**
   * After something was renamed, the checks with its new name; those that no longer read stay.
   *
   * @param zones renames zones in connection lines, which name no other objects
   * @param rules renames it in the match of a rule, and so in a set of connections
   */
  static Rulebase renaming(
      Rulebase before, Rulebase after, UnaryOperator<String> zones, UnaryOperator<Rule> rules) {
    if (before.checks().isEmpty()) {
      return after;
    }
    return after.withChecks(
        before.checks().stream()
            .map(
                check ->
                    check.isSet() ? renamed(check, rules, before) : renamed(check, before, zones))
            .toList());
  }

  private static SavedCheck renamed(SavedCheck check, UnaryOperator<Rule> rename, Rulebase before) {
    try {
      Rule question = ReachLine.parse(check.question(), before);
      return check.ofSet(ReachLine.format(rename.apply(question)));
    } catch (InvalidText e) {
      return check;
    }
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
