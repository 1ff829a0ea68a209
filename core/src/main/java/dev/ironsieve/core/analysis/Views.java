package dev.ironsieve.core.analysis;

import dev.ironsieve.core.ruleindex.RuleIndex;
import java.util.Arrays;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.IntFunction;
import java.util.function.Predicate;
import java.util.stream.IntStream;
import java.util.stream.Stream;

/** The views of the rules of an index, by handle; each is made when it is first asked for. */
final class Views {
  private final RuleIndex index;
  private final View.Maker maker;
  private final Map<Integer, View> views;

  Views(View.Maker maker) {
    this(maker, new HashMap<>());
  }

  private Views(View.Maker maker, Map<Integer, View> views) {
    index = maker.index();
    this.maker = maker;
    this.views = views;
  }

  /** The same views of rules that were laid out anew; {@code translation} led to that index. */
  Views moved(CertificateTranslation translation, View.Maker next) {
    Map<Integer, View> moved = new HashMap<>();
    views.forEach((handle, view) -> moved.put(translation.handle(handle), view));
    return new Views(next, moved);
  }

  /** Those for which a condition holds; the others are made again. */
  Views keeping(Predicate<View> condition) {
    Map<Integer, View> kept = new ConcurrentHashMap<>();
    views.entrySet().parallelStream()
        .filter(view -> condition.test(view.getValue()))
        .forEach(view -> kept.put(view.getKey(), view.getValue()));
    return new Views(maker, new HashMap<>(kept));
  }

  View of(int handle) {
    return views.computeIfAbsent(handle, maker::of);
  }

  /** Whether the view of a rule was made, and a condition holds for it. */
  boolean isMadeAnd(int handle, Predicate<View> condition) {
    View view = views.get(handle);
    return view != null && condition.test(view);
  }

  /** The findings about some rules, in their order; no view is made for them. */
  Stream<Finding> findings(int[] handles) {
    return each(
            handles,
            handle -> {
              View view = views.get(handle);
              return view == null ? maker.findings(handle) : view.findings();
            })
        .flatMap(List::stream);
  }

  /** Something of some rules, in their order; on several threads if they are many. */
  private static <T> Stream<T> each(int[] handles, IntFunction<T> what) {
    IntStream all = Arrays.stream(handles);
    return (handles.length < Certificates.MANY ? all : all.parallel()).mapToObj(what);
  }

  void remove(int handle) {
    views.remove(handle);
  }

  /**
   * Makes the views of all rules that have none.
   *
   * @return handles of these rules
   */
  int[] makeMissing() {
    int[] handles =
        views.size() < index.size()
            ? IntStream.range(0, index.size())
                .map(index::handleAt)
                .filter(handle -> !views.containsKey(handle))
                .toArray()
            : new int[0];
    make(handles);
    return handles;
  }

  private void make(int[] handles) {
    View[] made = each(handles, maker::of).toArray(View[]::new);
    for (int i = 0; i < handles.length; i++) {
      views.put(handles[i], made[i]);
    }
  }

  /** The views that were made, by the rule's id. */
  Map<String, View> byId() {
    Map<String, View> out = new HashMap<>();
    views.forEach((handle, view) -> out.put(index.rule(handle).id(), view));
    return out;
  }

  /**
   * Makes the views of some rules again.
   *
   * @param gone handles of rules that are no longer there
   * @return ids of the rules whose view is another than before
   */
  Set<String> remake(int[] handles, Set<Integer> gone) {
    Map<String, View> before = new HashMap<>();
    gone.forEach(handle -> note(before, handle, views.remove(handle)));
    for (int handle : handles) {
      note(before, handle, views.get(handle));
    }
    make(handles);
    return different(handles, before);
  }

  private void note(Map<String, View> before, int handle, View view) {
    if (view != null) {
      before.put(index.rule(handle).id(), view);
    }
  }

  /** Makes the missing views: ids of those rules whose view is another than before. */
  Set<String> makeMissing(Map<String, View> before) {
    return different(makeMissing(), before);
  }

  private Set<String> different(int[] handles, Map<String, View> before) {
    Set<String> out = new LinkedHashSet<>();
    for (int handle : handles) {
      String id = index.rule(handle).id();
      if (!views.get(handle).equals(before.get(id))) {
        out.add(id);
      }
    }
    return out;
  }
}
