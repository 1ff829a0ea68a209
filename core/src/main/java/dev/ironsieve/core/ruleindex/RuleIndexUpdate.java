package dev.ironsieve.core.ruleindex;

import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.ruleindex.RuleIndex.Change;
import dev.ironsieve.core.ruleindex.RuleIndex.Next;
import dev.ironsieve.core.space.Box;
import dev.ironsieve.core.space.ResolvedMatch;
import dev.ironsieve.core.space.Space;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.IntConsumer;

/**
 * One update of the rules of a {@link RuleTable}: worked out first, which only adds classes to the
 * space, then applied as a whole. Rules that are the same at the start and at the end of the order
 * are not looked at more closely.
 */
final class RuleIndexUpdate {
  /** An update leaves at most so many times as many handles as there are rules. */
  private static final int MOST_UNUSED = 3;

  /**
   * A rule between the first and the last that changed.
   *
   * @param handle that it keeps, or {@link RuleIndex#NONE} for a fresh one
   * @param match of a fresh one
   * @param region of a fresh one
   */
  private record Placed(Rule rule, int handle, ResolvedMatch match, List<Box> region) {
    boolean isFresh() {
      return handle == RuleIndex.NONE;
    }
  }

  private final RuleTable table;
  private final Next next;
  private int prefix; // rules at the start that stay
  private int suffix; // rules at the end that stay
  private final List<Placed> placed = new ArrayList<>(); // the rules between

  private RuleIndexUpdate(RuleTable table, Next next) {
    this.table = table;
    this.next = next;
  }

  /** The update to a next state; empty if there is no room left in the space or the table. */
  static Optional<RuleIndexUpdate> of(RuleTable table, Space space, Next next) {
    RuleIndexUpdate update = new RuleIndexUpdate(table, next);
    update.findUnchangedEnds();
    return update.findPlaces(space) ? Optional.of(update) : Optional.empty();
  }

  private void findUnchangedEnds() {
    int count = next.rules().size();
    int most = Math.min(count, table.size());
    while (prefix < most && isSame(prefix, next.rules().get(prefix))) {
      prefix++;
    }
    while (suffix < most - prefix
        && isSame(table.size() - 1 - suffix, next.rules().get(count - 1 - suffix))) {
      suffix++;
    }
  }

  /** Whether a rule is at a position, and its names keep their meaning. */
  private boolean isSame(int position, Rule rule) {
    return table.rule(table.handleAt(position)) == rule && !next.isOther(rule);
  }

  /** False if there is no room. */
  private boolean findPlaces(Space space) {
    int count = next.rules().size();
    int fresh = 0;
    for (int i = prefix; i < count - suffix; i++) {
      Rule rule = next.rules().get(i);
      int handle = table.handle(rule, i);
      boolean there =
          handle != RuleIndex.NONE
              && !next.moved().contains(rule.id())
              && decidesLike(table.rule(handle), rule);
      if (there && !next.isOther(rule) && table.rule(handle).matchesLike(rule)) {
        placed.add(new Placed(rule, handle, null, null));
        continue;
      }
      ResolvedMatch match = next.names().match(rule);
      if (there && match.equals(table.match(handle))) {
        placed.add(new Placed(rule, handle, null, null));
        continue;
      }
      Optional<List<Box>> region = space.region(match);
      if (region.isEmpty()) {
        return false;
      }
      placed.add(new Placed(rule, RuleIndex.NONE, match, region.get()));
      fresh++;
    }
    return table.handles() + fresh <= MOST_UNUSED * (count + 100);
  }

  private static boolean decidesLike(Rule was, Rule is) {
    return was.isInForce() == is.isInForce() && was.verdict() == is.verdict();
  }

  /**
   * Changes the table.
   *
   * @param removeBox told the number of each box that is gone, before any is added
   * @param addBox told the number of each new box, when all rules have their positions
   */
  Change apply(IntConsumer removeBox, IntConsumer addBox) {
    Map<Integer, Integer> gone = remove(removeBox);
    List<Integer> fresh = new ArrayList<>();
    List<Integer> reworded = new ArrayList<>();
    int firstNewBox = table.boxes().size();
    int count = next.rules().size();
    int[] order = new int[count];
    System.arraycopy(table.order(), 0, order, 0, prefix);
    System.arraycopy(table.order(), table.size() - suffix, order, count - suffix, suffix);
    for (int i = 0; i < placed.size(); i++) {
      Placed one = placed.get(i);
      int handle = one.handle;
      if (one.isFresh()) {
        handle = table.add(one.rule, one.match, one.region);
        fresh.add(handle);
      } else if (table.replace(handle, one.rule)) {
        reworded.add(handle);
      }
      order[prefix + i] = handle;
    }
    table.place(order);
    for (int box = firstNewBox; box < table.boxes().size(); box++) {
      addBox.accept(box);
    }
    return new Change(gone, fresh, reworded);
  }

  /** Removes the rules that do not stay: their handles with the positions that they had. */
  private Map<Integer, Integer> remove(IntConsumer removeBox) {
    Map<Integer, Integer> gone = new HashMap<>();
    for (int i = prefix; i < table.size() - suffix; i++) {
      gone.put(table.handleAt(i), i);
    }
    placed.forEach(one -> gone.remove(one.handle));
    for (int handle : gone.keySet()) {
      table.remove(handle);
      if (table.rule(handle).isInForce()) {
        for (int i = 0; i < table.region(handle).size(); i++) {
          removeBox.accept(table.firstBox(handle) + i);
        }
      }
    }
    return gone;
  }
}
