package dev.ironsieve.core.ruleindex;

import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.space.Box;
import dev.ironsieve.core.space.ResolvedMatch;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/**
 * The rules of a {@link RuleIndex} with their regions, by handle, and the boxes of those in force,
 * by number; where each stands in the order. Handles and numbers are only ever added.
 */
final class RuleTable {
  private final List<Rule> rules = new ArrayList<>(); // by handle
  private final List<Verdict> verdicts = new ArrayList<>(); // by handle
  private final List<ResolvedMatch> matches = new ArrayList<>(); // by handle
  private final List<List<Box>> regions = new ArrayList<>(); // by handle
  private final Map<String, Integer> handles = new HashMap<>(); // by id, rules that are there
  private final List<Box> boxes = new ArrayList<>(); // of rules in force
  private final IntList ruleOf; // handle by box
  private final IntList firstBox; // by handle
  private int[] handleAt = {}; // by position
  private int[] positionOf = {}; // by handle; -1 if gone
  private int[] positionOfBox = {};

  RuleTable() {
    ruleOf = new IntList();
    firstBox = new IntList();
  }

  /** A copy to be changed on its own. */
  RuleTable(RuleTable other) {
    rules.addAll(other.rules);
    verdicts.addAll(other.verdicts);
    matches.addAll(other.matches);
    regions.addAll(other.regions);
    handles.putAll(other.handles);
    boxes.addAll(other.boxes);
    ruleOf = new IntList(other.ruleOf);
    firstBox = new IntList(other.firstBox);
    place(other.handleAt);
  }

  /**
   * Adds a rule, without a position yet.
   *
   * @return its handle
   */
  int add(Rule rule, ResolvedMatch match, List<Box> region) {
    int handle = rules.size();
    rules.add(rule);
    verdicts.add(rule.verdict());
    matches.add(match);
    regions.add(region);
    handles.put(rule.id(), handle);
    firstBox.add(boxes.size());
    if (rule.isInForce()) {
      for (Box box : region) {
        boxes.add(box);
        ruleOf.add(handle);
      }
    }
    return handle;
  }

  /** Forgets the id of a rule, which has no position from the next {@link #place} on. */
  void remove(int handle) {
    handles.remove(rules.get(handle).id(), handle);
  }

  /**
   * Replaces a rule by one that decides the same.
   *
   * @return whether they are different objects
   */
  boolean replace(int handle, Rule rule) {
    return rules.set(handle, rule) != rule;
  }

  /** Sets the order: the handle of each rule by its position. */
  void place(int[] order) {
    handleAt = order;
    positionOf = new int[rules.size()];
    Arrays.fill(positionOf, -1);
    for (int i = 0; i < order.length; i++) {
      positionOf[order[i]] = i;
    }
    positionOfBox = new int[boxes.size()];
    for (int box = 0; box < positionOfBox.length; box++) {
      positionOfBox[box] = positionOf[ruleOf.get(box)];
    }
  }

  /** The number of rules that have a position. */
  int size() {
    return handleAt.length;
  }

  /** One more than the highest handle. */
  int handles() {
    return rules.size();
  }

  int handleAt(int position) {
    return handleAt[position];
  }

  /** The order: handles by position. */
  int[] order() {
    return handleAt;
  }

  /** The handle of a rule by its id, or {@link RuleIndex#NONE}. */
  int handle(String id) {
    return handles.getOrDefault(id, RuleIndex.NONE);
  }

  /** The same, faster if the rule is still at a position. */
  int handle(Rule rule, int position) {
    boolean there = position < size() && rules.get(handleAt[position]) == rule;
    return there ? handleAt[position] : handle(rule.id());
  }

  /** The position of a rule, from 0; -1 if it is gone. */
  int position(int handle) {
    return positionOf[handle];
  }

  Rule rule(int handle) {
    return rules.get(handle);
  }

  Verdict verdict(int handle) {
    return verdicts.get(handle);
  }

  ResolvedMatch match(int handle) {
    return matches.get(handle);
  }

  List<Box> region(int handle) {
    return regions.get(handle);
  }

  List<Rule> rulesInOrder() {
    return inOrder(rules);
  }

  List<ResolvedMatch> matchesInOrder() {
    return inOrder(matches);
  }

  List<List<Box>> regionsInOrder() {
    return inOrder(regions);
  }

  private <T> List<T> inOrder(List<T> byHandle) {
    return Arrays.stream(handleAt).mapToObj(byHandle::get).toList();
  }

  /** All boxes by number, also those of rules that are gone; grows with this table. */
  List<Box> boxes() {
    return boxes;
  }

  /** The handle of a box's rule. */
  int ruleOf(int box) {
    return ruleOf.get(box);
  }

  /** The position of a box's rule; -1 if it is gone. */
  int positionOfBox(int box) {
    return positionOfBox[box];
  }

  /** The number of the first box of a rule; of a rule not in force, of the next rule added. */
  int firstBox(int handle) {
    return firstBox.get(handle);
  }
}
