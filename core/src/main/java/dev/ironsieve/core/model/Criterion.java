package dev.ironsieve.core.model;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.function.UnaryOperator;

/**
 * One criterion of a rule: its items are alternatives, less its exceptions. Without items it stands
 * for everything, so {@code any} less nothing narrows nothing.
 *
 * @param items alternatives; empty for any
 * @param except exceptions from the items
 */
public record Criterion<T>(List<T> items, List<T> except) {
  /** Most items, and most exceptions, of one criterion. */
  public static final int MAX_ITEMS = 5000;

  public Criterion {
    items = distinct("items", items);
    except = distinct("exceptions", except);
  }

  private static <T> List<T> distinct(String what, List<T> items) {
    List<T> distinct = List.copyOf(new LinkedHashSet<>(items));
    if (distinct.size() > MAX_ITEMS) {
      throw new InvalidModel(what, "at most " + MAX_ITEMS, distinct.size() + "");
    }
    return distinct;
  }

  public static <T> Criterion<T> any() {
    return new Criterion<>(List.of(), List.of());
  }

  @SafeVarargs
  public static <T> Criterion<T> of(T... items) {
    return new Criterion<>(List.of(items), List.of());
  }

  /** Whether this holds for everything. */
  public boolean isAny() {
    return items.isEmpty() && except.isEmpty();
  }

  /** Items and exceptions in one list. */
  public List<T> mentioned() {
    List<T> all = new ArrayList<>(items);
    all.addAll(except);
    return all;
  }

  public Criterion<T> map(UnaryOperator<T> change) {
    return new Criterion<>(
        items.stream().map(change).toList(), except.stream().map(change).toList());
  }

  // Written out here and for what criteria hold most, since these are asked for every rule that is
  // looked at, and the generated ones are slow until they have been compiled.
  @Override
  public boolean equals(Object o) {
    return o instanceof Criterion<?> other
        && items.equals(other.items)
        && except.equals(other.except);
  }

  @Override
  public int hashCode() {
    return 31 * items.hashCode() + except.hashCode();
  }
}
