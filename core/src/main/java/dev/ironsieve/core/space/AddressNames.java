package dev.ironsieve.core.space;

import dev.ironsieve.core.model.AddressItem;
import dev.ironsieve.core.model.AddressObject;
import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.Feed;
import dev.ironsieve.core.model.FeedSet;
import dev.ironsieve.core.model.Names;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.sets.AddressRange;
import dev.ironsieve.core.sets.AddressSet;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;

/** Looks up address objects, and the sets of addresses of feeds, by name. */
final class AddressNames extends ObjectNames<AddressItem, AddressSet> {
  private final List<AddressObject> objects;
  private final List<Feed> feeds;
  private final Map<String, AddressSet> fed; // by key
  private volatile Map<AddressSet, String> named; // null until it is needed
  private final Map<String, AddressSet> resolved = new ConcurrentHashMap<>(); // objects, by key

  /**
   * @param like of another state, or null; if it was made of the same objects and feeds it is
   *     returned
   */
  static AddressNames of(Rulebase rulebase, AddressNames like) {
    if (like != null && like.objects == rulebase.addresses() && like.feeds == rulebase.feeds()) {
      return like;
    }
    Map<String, AddressSet> fed = new HashMap<>();
    rulebase.feeds().stream()
        .flatMap(feed -> feed.sets().stream())
        .filter(FeedSet.Addresses.class::isInstance)
        .map(FeedSet.Addresses.class::cast)
        .forEach(set -> fed.put(Names.key(set.name()), set.addresses()));
    return new AddressNames(rulebase, fed, like);
  }

  private AddressNames(Rulebase rulebase, Map<String, AddressSet> fed, AddressNames like) {
    super(
        AddressNames::name,
        told(rulebase.addresses(), fed),
        byKey(rulebase.addresses(), AddressObject::name, AddressObject::members),
        like);
    objects = rulebase.addresses();
    feeds = rulebase.feeds();
    this.fed = fed;
  }

  private static Map<String, Object> told(
      List<AddressObject> objects, Map<String, AddressSet> fed) {
    Map<String, Object> out = byKey(objects, AddressObject::name, object -> object);
    out.putAll(fed);
    return out;
  }

  private static String name(AddressItem item) {
    return item instanceof AddressItem.Named named ? named.name() : null;
  }

  /** Whether an object or a set of a feed has this name. */
  boolean has(String name) {
    String key = Names.key(name);
    return fed.containsKey(key) || members(key) != null;
  }

  /**
   * The name of the object, or of the set of a feed, that is just these addresses; empty if there
   * is none. O(objects) the first time.
   */
  Optional<String> nameOf(AddressSet addresses) {
    Map<AddressSet, String> known = named;
    if (known == null) {
      known = new HashMap<>();
      for (Feed feed : feeds) {
        for (FeedSet set : feed.sets()) {
          if (set instanceof FeedSet.Addresses list) {
            known.putIfAbsent(list.addresses(), list.name());
          }
        }
      }
      for (AddressObject object : objects) {
        known.put(resolved(Names.key(object.name())), object.name());
      }
      named = known; // Two threads may make the same; that is all.
    }
    return Optional.ofNullable(known.get(addresses));
  }

  /** The addresses that a criterion stands for. */
  AddressSet set(Criterion<AddressItem> criterion) {
    return criterion.isAny() ? AddressSet.ALL : known(criterion);
  }

  @Override
  AddressSet worked(Criterion<AddressItem> criterion) {
    AddressSet in = criterion.items().isEmpty() ? AddressSet.ALL : addresses(criterion.items());
    return criterion.except().isEmpty() ? in : in.minus(addresses(criterion.except()));
  }

  private AddressSet addresses(List<AddressItem> items) {
    List<AddressRange> ranges = new ArrayList<>();
    for (AddressItem item : items) {
      switch (item) {
        case AddressItem.Literal literal -> ranges.add(literal.range());
        case AddressItem.Named named -> ranges.addAll(resolved(Names.key(named.name())).ranges());
      }
    }
    return AddressSet.of(ranges);
  }

  /** The addresses of an object or a set of a feed; each object is resolved once. */
  private AddressSet resolved(String key) {
    AddressSet known = fed.get(key);
    known = known == null ? resolved.get(key) : known;
    if (known == null) {
      known = addresses(members(key));
      resolved.put(key, known);
    }
    return known;
  }
}
