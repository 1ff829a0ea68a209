package dev.ironsieve.core.space;

import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.Names;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Function;

/**
 * Objects of one kind that rules mention by name, themselves or through others, and what criteria
 * stand for, as far as it was asked.
 *
 * @param <T> what criteria list: names among others
 * @param <S> what a criterion stands for
 */
abstract class ObjectNames<T, S> {
  private final Function<T, String> name; // of an item; null if it is no name
  private final Map<String, Object> told; // by key
  private final Map<String, List<T>> members; // by key, of those that have some
  private final Map<Criterion<T>, S> sets; // of criteria that have names
  private final Map<Criterion<T>, S> nameless; // of others; the same in every state

  /**
   * @param name tells the name that an item is, or null if it is none
   * @param told what stands for each key, to be compared with that of another state
   * @param members by key, of objects that have some
   * @param like of another state in which items mean the same, or null
   */
  ObjectNames(
      Function<T, String> name,
      Map<String, Object> told,
      Map<String, List<T>> members,
      ObjectNames<T, S> like) {
    this.name = name;
    this.told = told;
    this.members = members;
    nameless = like == null ? new ConcurrentHashMap<>() : like.nameless;
    sets = like == null ? new ConcurrentHashMap<>() : like.setsWithout(othersThan(like));
  }

  /** The sets of criteria that mention none of some keys; kept for later if there are no keys. */
  private Map<Criterion<T>, S> setsWithout(Set<String> keys) {
    if (keys.isEmpty()) {
      return sets;
    }
    Map<Criterion<T>, S> kept = new ConcurrentHashMap<>();
    sets.forEach(
        (criterion, set) -> {
          if (!mentions(criterion, keys)) {
            kept.put(criterion, set);
          }
        });
    return kept;
  }

  /** The set of a criterion that is not any. */
  abstract S worked(Criterion<T> criterion);

  /** The set of a criterion that is not any; equal criteria share one object. */
  final S known(Criterion<T> criterion) {
    boolean named = hasName(criterion.items()) || hasName(criterion.except());
    return (named ? sets : nameless).computeIfAbsent(criterion, this::worked);
  }

  private boolean hasName(List<T> items) {
    for (T item : items) {
      if (name.apply(item) != null) {
        return true;
      }
    }
    return false;
  }

  /** The members of an object that has some. */
  final List<T> members(String key) {
    return members.get(key);
  }

  /**
   * The keys here and in another state that stand for something else there, also through others.
   */
  final Set<String> changedFrom(ObjectNames<T, S> before) {
    Set<String> out = othersThan(before);
    out.retainAll(told.keySet());
    out.retainAll(before.told.keySet());
    return out;
  }

  /** The same, and keys that are only in one of both. */
  private Set<String> othersThan(ObjectNames<T, S> before) {
    if (this == before) {
      return new HashSet<>();
    }
    Set<String> out = differing(told, before.told);
    int count = -1;
    while (count != out.size() && !out.isEmpty()) {
      count = out.size();
      members.forEach(
          (key, items) -> {
            if (!out.contains(key) && mentions(items, out)) {
              out.add(key);
            }
          });
    }
    return out;
  }

  /** Keys that stand for something else, or are only in one of both. */
  static <M> Set<String> differing(Map<String, M> here, Map<String, M> there) {
    Set<String> out = new HashSet<>();
    here.forEach(
        (key, is) -> {
          if (!is.equals(there.get(key))) {
            out.add(key);
          }
        });
    there.keySet().stream().filter(key -> !here.containsKey(key)).forEach(out::add);
    return out;
  }

  /** Whether a criterion itself mentions one of some keys. */
  final boolean mentions(Criterion<T> criterion, Set<String> keys) {
    return mentions(criterion.items(), keys) || mentions(criterion.except(), keys);
  }

  private boolean mentions(List<T> items, Set<String> keys) {
    for (T item : items) {
      String own = name.apply(item);
      if (own != null && keys.contains(Names.key(own))) {
        return true;
      }
    }
    return false;
  }

  /** Objects by their keys. */
  static <O, M> Map<String, M> byKey(List<O> objects, Function<O, String> name, Function<O, M> is) {
    Map<String, M> out = new HashMap<>();
    objects.forEach(object -> out.put(Names.key(name.apply(object)), is.apply(object)));
    return out;
  }
}
