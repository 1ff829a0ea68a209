package dev.ironsieve.core.analysis;

import dev.ironsieve.core.ruleindex.RuleIndex;
import dev.ironsieve.core.space.Box;
import java.util.BitSet;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;

/**
 * Finds the rules whose view or reach an update can change although their certificates stay valid.
 */
final class AffectedRules {
  private static final int[] NONE = {};

  private final RuleIndex index;
  private final RuleIndex.Change change;
  private final List<IndexChange> events;

  AffectedRules(RuleIndex index, RuleIndex.Change change, List<IndexChange> events) {
    this.index = index;
    this.change = change;
    this.events = events;
  }

  /** Adds the handles of rules whose view may be another; {@code views} are those so far. */
  void addViews(BitSet handles, Views views) {
    addNeighbours(handles);
    addOutdated(handles, views);
  }

  /** Whether two rules are mergeable depends on which rules are neighbours. */
  private void addNeighbours(BitSet handles) {
    Set<Integer> places = new HashSet<>();
    events.forEach(event -> places.add(event.place()));
    change.reworded().forEach(handle -> places.add(index.position(handle)));
    for (int place : places) {
      int above = Math.min(place, index.size()) - 1;
      while (above >= 0 && !index.rule(index.handleAt(above)).isInForce()) {
        above--;
      }
      if (above >= 0) {
        handles.set(index.handleAt(above));
      }
      if (place < index.size()) {
        handles.set(index.handleAt(place));
      }
    }
  }

  /**
   * A new rule may split a class. The connection shown as a witness may then lie in the half that
   * the new rule takes, although the point of the certificate does not.
   */
  private void addOutdated(BitSet handles, Views views) {
    for (IndexChange event : events) {
      List<Box> region = index.region(event.handle());
      for (int handle : event.fresh() ? event.overlapping() : NONE) {
        if (views.isMadeAnd(
            handle, view -> view.witnesses().anyMatch(w -> index.space().mayHold(region, w)))) {
          handles.set(handle);
        }
      }
    }
  }

  /** Handles of the rules of which another share may reach them. */
  Set<Integer> reach() {
    Set<Integer> out = new LinkedHashSet<>(change.fresh());
    int first = index.size();
    for (int handle : change.fresh()) {
      first = Math.min(first, index.position(handle));
    }
    for (int place : change.gone().values()) {
      first = Math.min(first, place);
    }
    for (IndexChange event : events) {
      for (int handle : event.overlapping()) {
        if (index.position(handle) >= first) {
          out.add(handle);
        }
      }
    }
    return out;
  }
}
