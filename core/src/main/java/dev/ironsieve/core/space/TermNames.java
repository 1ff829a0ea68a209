package dev.ironsieve.core.space;

import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.Names;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Validity;
import dev.ironsieve.core.model.Vocabulary;
import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.vocabulary.TimeVocabulary;
import dev.ironsieve.core.vocabulary.ValueFinder;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;

/** The values of vocabularies, numbered in their order, and the names that stand for some. */
final class TermNames {
  private final List<Vocabulary> vocabularies;
  private final Map<Coordinate, Integer> places = new EnumMap<>(Coordinate.class);
  private final List<Map<String, IntSet>> meanings = new ArrayList<>(); // by vocabulary
  private final List<Map<String, Integer>> numbers = new ArrayList<>(); // of values as written
  private final List<ValueFinder> finders = new ArrayList<>(); // by vocabulary
  private final List<HostGroups> hostGroups = new ArrayList<>(); // by vocabulary
  private final List<Map<Criterion<String>, IntSet>> sets = new ArrayList<>(); // by vocabulary
  private final List<int[]> later = new ArrayList<>(); // by vocabulary: what stands for each value
  private final LocalDate day;
  private final List<IntSet> any;
  private final Map<IntSet, IntSet> timesOfRules = new ConcurrentHashMap<>(); // each set once

  /**
   * @param like of another state, for the same day; or null
   * @param day from which on times count; null for ever
   */
  TermNames(List<Vocabulary> vocabularies, TermNames like, LocalDate day) {
    this.vocabularies = vocabularies;
    this.day = day;
    List<IntSet> all = new ArrayList<>();
    for (Vocabulary vocabulary : vocabularies) {
      int place = all.size();
      boolean sameValues = like != null && like.hasValuesOf(place, vocabulary);
      boolean same = sameValues && like.vocabularies.get(place).equals(vocabulary);
      places.put(vocabulary.coordinate(), place);
      all.add(sameValues ? like.any.get(place) : IntSet.range(0, vocabulary.values().size() - 1));
      numbers.add(sameValues ? like.numbers.get(place) : numbers(vocabulary));
      finders.add(sameValues ? like.finders.get(place) : new ValueFinder(vocabulary));
      hostGroups.add(
          sameValues ? like.hostGroups.get(place) : new HostGroups(vocabulary, finders.get(place)));
      meanings.add(same ? like.meanings.get(place) : vocabulary.meanings());
      sets.add(same ? like.sets.get(place) : new ConcurrentHashMap<>());
      later.add(sameValues ? like.later.get(place) : TimeVocabulary.from(day, vocabulary));
    }
    boolean sameAny = like != null && all.size() == like.any.size();
    for (int place = 0; sameAny && place < all.size(); place++) {
      sameAny = all.get(place) == like.any.get(place);
    }
    any = sameAny ? like.any : List.copyOf(all);
  }

  private boolean hasValuesOf(int place, Vocabulary vocabulary) {
    if (place >= vocabularies.size()) {
      return false;
    }
    Vocabulary own = vocabularies.get(place);
    return own.coordinate() == vocabulary.coordinate() && own.values().equals(vocabulary.values());
  }

  private static Map<String, Integer> numbers(Vocabulary vocabulary) {
    Map<String, Integer> numbers = HashMap.newHashMap(vocabulary.values().size());
    for (String value : vocabulary.values()) {
      numbers.put(value, numbers.size());
    }
    return numbers;
  }

  List<Vocabulary> vocabularies() {
    return vocabularies;
  }

  /** The place of a coordinate among the vocabularies, or null if none is of it. */
  Integer place(Coordinate coordinate) {
    return places.get(coordinate);
  }

  /** Whether the values of all vocabularies are those of another state. */
  boolean haveValuesOf(TermNames other) {
    return any == other.any;
  }

  /** Whether the values of one vocabulary are those of another state. */
  boolean haveValuesOf(TermNames other, int place) {
    return any.get(place) == other.any.get(place);
  }

  /** Whether names of a coordinate stand for the same sets as in another state, or in none. */
  boolean haveNamesOf(TermNames other, Coordinate coordinate) {
    Integer here = places.get(coordinate);
    Integer there = other.places.get(coordinate);
    return here == null || there == null ? here == there : sets.get(here) == other.sets.get(there);
  }

  /** Keys of names that stand for something else in another state with the same values. */
  Map<Coordinate, Set<String>> changedFrom(TermNames before) {
    Map<Coordinate, Set<String>> out = new EnumMap<>(Coordinate.class);
    for (int place = 0; place < meanings.size(); place++) {
      if (meanings.get(place) != before.meanings.get(place)) {
        out.put(
            vocabularies.get(place).coordinate(),
            ObjectNames.differing(meanings.get(place), before.meanings.get(place)));
      }
    }
    out.values().removeIf(Set::isEmpty);
    return out;
  }

  /** Whether a rule itself mentions one of some keys. */
  static boolean mentions(Rule rule, Map<Coordinate, Set<String>> keys) {
    for (Map.Entry<Coordinate, Set<String>> some : keys.entrySet()) {
      for (String name : rule.mentioned(some.getKey())) {
        if (some.getValue().contains(Names.key(name))) {
          return true;
        }
      }
    }
    return false;
  }

  /** The numbers of all values of each vocabulary. */
  List<IntSet> any() {
    return any;
  }

  /** The numbers of the values that a rule asks for, of each vocabulary. */
  List<IntSet> sets(Rule rule) {
    boolean always = rule.validity().equals(Validity.ALWAYS);
    if (rule.terms().isEmpty() && always) {
      return any;
    }
    List<IntSet> out = new ArrayList<>(any);
    rule.terms()
        .forEach(
            (coordinate, criterion) -> {
              int place = places.get(coordinate);
              out.set(place, sets.get(place).computeIfAbsent(criterion, c -> values(place, c)));
            });
    if (!always) {
      int place = places.get(Coordinate.TIME);
      String days = rule.mentioned(Coordinate.TIME).getLast();
      IntSet times =
          out.get(place).intersect(counting(place, meanings.get(place).get(Names.key(days))));
      IntSet known = timesOfRules.putIfAbsent(times, times);
      out.set(place, known == null ? times : known);
    }
    return List.copyOf(out);
  }

  private IntSet values(int place, Criterion<String> criterion) {
    Map<String, IntSet> known = meanings.get(place);
    // Every value listed is not any.
    IntSet in = criterion.items().isEmpty() ? any.get(place) : IntSet.EMPTY;
    for (String item : criterion.items()) {
      in = in.union(known.get(Names.key(item)));
    }
    for (String item : criterion.except()) {
      in = in.minus(known.get(Names.key(item)));
    }
    return counting(place, in);
  }

  /** The values, with past times replaced by the values that stand for them. */
  private IntSet counting(int place, IntSet values) {
    int[] instead = later.get(place);
    if (instead == null) {
      return values;
    }
    IntSet.Builder out = new IntSet.Builder();
    for (int value = 0; value < instead.length; value++) {
      if (values.contains(instead[value])) {
        out.addInOrder(value, value);
      }
    }
    return out.build();
  }

  /** The value that stands for a past time; for others the value itself. */
  int counting(int place, int value) {
    int[] instead = later.get(place);
    return instead == null ? value : instead[value];
  }

  LocalDate day() {
    return day;
  }

  /** Finds values of a coordinate; none if there is no vocabulary of it. */
  Optional<ValueFinder> finder(Coordinate coordinate) {
    return Optional.ofNullable(places.get(coordinate)).map(finders::get);
  }

  /** Whether a vocabulary of the coordinate has a value of exactly this name. */
  boolean hasValue(Coordinate coordinate, String name) {
    Integer place = places.get(coordinate);
    return place != null && numbers.get(place).containsKey(name);
  }

  /** See {@link Resolution#valueNumber}. */
  int number(int place, String name) {
    if (name == null) {
      return -1;
    }
    Integer asWritten = numbers.get(place).get(name);
    if (asWritten != null) {
      return asWritten;
    }
    Optional<String> inside = finders.get(place).value(name);
    if (inside.isPresent()) {
      return numbers.get(place).get(inside.get());
    }
    IntSet meant = meanings.get(place).get(Names.key(name));
    return meant == null || meant.size() != 1 ? -1 : meant.min();
  }

  /**
   * For each value of a vocabulary, one of another state of it that rules mean whenever they mean
   * this one; O(values + what the names hold).
   *
   * @param rules whose names are known here and there, where they mean the same
   * @return -1 for a value without such another; null if both are the same vocabulary
   */
  int[] valuesIn(TermNames other, int vocabulary, List<Rule> rules) {
    Vocabulary here = vocabularies.get(vocabulary);
    Vocabulary there = other.vocabularies.get(vocabulary);
    if (here.equals(there)) {
      return null;
    }
    Set<String> names = new LinkedHashSet<>();
    for (Rule rule : rules) {
      rule.mentioned(here.coordinate()).forEach(name -> names.add(Names.key(name)));
    }
    Map<List<Integer>, Integer> known = new HashMap<>();
    List<List<Integer>> holding = other.holding(vocabulary, names);
    for (int value = holding.size() - 1; value >= 0; value--) {
      known.put(holding.get(value), value);
    }
    return holding(vocabulary, names).stream()
        .mapToInt(held -> known.getOrDefault(held, -1))
        .toArray();
  }

  /** For each value the numbers of the names that hold it, or the one that stands for it. */
  private List<List<Integer>> holding(int vocabulary, Set<String> names) {
    List<List<Integer>> out = new ArrayList<>();
    vocabularies.get(vocabulary).values().forEach(value -> out.add(new ArrayList<>()));
    int number = 0;
    for (String name : names) {
      int own = number++;
      counting(vocabulary, meanings.get(vocabulary).get(name))
          .forEach(value -> out.get(value).add(own));
    }
    return out;
  }

  /** The groups of sites that look alike in sealed connections; none without sites. */
  List<IntSet> sitesAlike() {
    Integer place = places.get(Coordinate.SITE);
    return place == null ? List.of() : hostGroups.get(place).groups();
  }

  /**
   * The values whose names are alike up to the first slash, or the first colon; of a host also that
   * of its other paths.
   */
  IntSet sameWhole(int vocabulary, Coordinate coordinate, int value) {
    List<String> names = vocabularies.get(vocabulary).values();
    String whole = whole(coordinate, names.get(value));
    IntSet.Builder out = new IntSet.Builder();
    for (int i = 0; i < names.size(); i++) {
      if (whole(coordinate, names.get(i)).equals(whole)) {
        out.addInOrder(i, i);
      }
    }
    IntSet named = out.build();
    if (coordinate != Coordinate.SITE) {
      return named;
    }
    // What no rule names of a host is part of whatever holds the host itself.
    return finders
        .get(vocabulary)
        .value(whole)
        .map(host -> named.union(IntSet.of(numbers.get(vocabulary).get(host))))
        .orElse(named);
  }

  private static String whole(Coordinate coordinate, String name) {
    if (coordinate != Coordinate.SITE) {
      int end = name.indexOf(':');
      return end < 0 ? name : name.substring(0, end);
    }
    // A host, whatever of it some rule tells apart: "host/path", "host, else".
    int end = 0;
    while (end < name.length() && name.charAt(end) != '/' && name.charAt(end) != ',') {
      end++;
    }
    return name.substring(0, end);
  }
}
