package dev.ironsieve.core.edition;

import dev.ironsieve.core.edit.Edit;
import dev.ironsieve.core.model.AddressItem;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.Feed;
import dev.ironsieve.core.model.FeedSet;
import dev.ironsieve.core.model.ObjectKind;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Vocabulary;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.sets.AddressSet;
import dev.ironsieve.core.sets.Family;
import dev.ironsieve.core.space.Resolution;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/** The addresses or hosts that another edition of a feed adds to its sets or removes. */
public final class FeedChange {
  private FeedChange() {}

  /**
   * One set that is not as it was; a set that is new has lost nothing, one that is gone has gained
   * nothing.
   *
   * @param gained ranges or hosts that only the newer edition has
   * @param lost those that only the older one has
   */
  public record SetChange(String set, List<String> gained, List<String> lost) {}

  /** The sets that differ, in the order of the newer edition, then those that are gone. */
  public static List<SetChange> sets(Feed before, Feed after) {
    List<SetChange> out = new ArrayList<>();
    for (FeedSet is : after.sets()) {
      add(out, before.set(is.name()), is);
    }
    for (FeedSet was : before.sets()) {
      if (after.set(was.name()) == null) {
        add(out, was, null);
      }
    }
    return out;
  }

  private static void add(List<SetChange> out, FeedSet was, FeedSet is) {
    List<String> gained = less(is, was);
    List<String> lost = less(was, is);
    if (was == null || is == null || !gained.isEmpty() || !lost.isEmpty()) {
      out.add(new SetChange((is == null ? was : is).name(), gained, lost));
    }
  }

  private static List<String> less(FeedSet set, FeedSet other) {
    if (set == null || other == null) {
      return set == null ? List.of() : set.members();
    }
    if (set instanceof FeedSet.Addresses own && other instanceof FeedSet.Addresses others) {
      return texts(own.addresses().minus(others.addresses()));
    }
    Set<String> known = new HashSet<>(other.members());
    return set.members().stream().filter(member -> !known.contains(member)).toList();
  }

  private static List<String> texts(AddressSet set) {
    return set.ranges().stream().map(Object::toString).toList();
  }

  /**
   * By how much a feed grew or shrank, as a share of what it was: 0 if not at all, 1 for twice as
   * much or nothing left. The largest of what that is in entries and in addresses of each family,
   * so that a single range that holds everything is not a small change.
   */
  public static double share(Feed before, Feed after) {
    double share = share(entries(before), entries(after));
    for (Family family : Family.values()) {
      share = Math.max(share, share(addresses(before, family), addresses(after, family)));
    }
    return share;
  }

  private static double share(double was, double is) {
    return was == is ? 0 : was == 0 ? 1 : Math.abs(is - was) / was;
  }

  private static double entries(Feed feed) {
    return feed.sets().stream().mapToLong(FeedSet::size).sum();
  }

  private static double addresses(Feed feed, Family family) {
    double sum = 0;
    for (FeedSet set : feed.sets()) {
      if (set instanceof FeedSet.Addresses addresses) {
        sum += addresses.addresses().size(family);
      }
    }
    return sum;
  }

  /**
   * Two states of a rulebase, with one edition of a feed and with another, that know the same names
   * and tell the same hosts apart.
   *
   * @param after sets that the newer edition does not have, and rules mention, are empty here
   */
  public record Compared(Rulebase before, Rulebase after, List<RuleChange> rules) {}

  /** The rules whose match another edition changes, in their order. */
  public static Compared compare(Rulebase rulebase, Feed next) {
    Optional<Feed> had = rulebase.feed(next.name());
    List<FeedSet> sets = new ArrayList<>(next.sets());
    Map<String, Set<Rule>> gone = new LinkedHashMap<>(); // who says it, by name
    for (FeedSet was : had.map(Feed::sets).orElse(List.of())) {
      if (next.set(was.name()) == null) {
        gone.put(was.name(), Set.copyOf(rulebase.rulesUsing(next.kind().objects(), was.name())));
        sets.add(
            was instanceof FeedSet.Addresses
                ? new FeedSet.Addresses(was.name(), AddressSet.EMPTY)
                : new FeedSet.Hosts(was.name(), Set.of()));
      }
    }
    Feed filled = new Feed(next.name(), next.kind(), next.edition(), sets);
    Rulebase after = new Edit.PutFeed(filled).apply(rulebase);
    Rulebase old = rulebase.tellingApart(after);
    Rulebase now = after.tellingApart(old);
    List<Rule> users =
        users(rulebase, had.map(Feed::sets).orElse(List.of()), next.kind().objects());
    List<RuleChange> changes =
        next.kind().objects() == ObjectKind.ADDRESS
            ? ofAddresses(users, new Resolution(old), new Resolution(now), gone)
            : ofHosts(users, old, now, gone);
    return new Compared(old, now, changes);
  }

  private static List<Rule> users(Rulebase rulebase, List<FeedSet> sets, ObjectKind kind) {
    Map<String, Rule> out = new LinkedHashMap<>();
    sets.forEach(
        set -> rulebase.rulesUsing(kind, set.name()).forEach(rule -> out.put(rule.id(), rule)));
    return rulebase.rules().stream().filter(rule -> out.containsKey(rule.id())).toList();
  }

  private static List<RuleChange> ofAddresses(
      List<Rule> rules, Resolution old, Resolution now, Map<String, Set<Rule>> gone) {
    List<RuleChange> out = new ArrayList<>();
    for (Rule rule : rules) {
      List<String> gained = new ArrayList<>();
      List<String> lost = new ArrayList<>();
      for (boolean from : new boolean[] {true, false}) {
        Criterion<AddressItem> asked = from ? rule.fromAddresses() : rule.toAddresses();
        AddressSet was = old.addresses(asked);
        AddressSet is = now.addresses(asked);
        String end = from ? "from " : "to ";
        texts(is.minus(was)).forEach(range -> gained.add(end + range));
        texts(was.minus(is)).forEach(range -> lost.add(end + range));
      }
      add(out, rule, gained, lost, unknown(rule, gone));
    }
    return out;
  }

  private static List<RuleChange> ofHosts(
      List<Rule> rules, Rulebase old, Rulebase now, Map<String, Set<Rule>> gone) {
    Vocabulary was = old.vocabulary(Coordinate.SITE).orElseThrow();
    Vocabulary is = now.vocabulary(Coordinate.SITE).orElseThrow();
    Map<String, RuleChange> changed = new LinkedHashMap<>();
    RuleChange.of(rules, was, is).forEach(change -> changed.put(change.rule().id(), change));
    List<RuleChange> out = new ArrayList<>();
    for (Rule rule : rules) {
      RuleChange change = changed.get(rule.id());
      add(
          out,
          rule,
          change == null ? List.of() : change.gained(),
          change == null ? List.of() : change.lost(),
          unknown(rule, gone));
    }
    return out;
  }

  private static List<String> unknown(Rule rule, Map<String, Set<Rule>> gone) {
    return gone.entrySet().stream()
        .filter(set -> set.getValue().contains(rule))
        .map(Map.Entry::getKey)
        .toList();
  }

  private static void add(
      List<RuleChange> out,
      Rule rule,
      List<String> gained,
      List<String> lost,
      List<String> unknown) {
    if (!gained.isEmpty() || !lost.isEmpty() || !unknown.isEmpty()) {
      out.add(new RuleChange(rule, gained, lost, unknown));
    }
  }
}
