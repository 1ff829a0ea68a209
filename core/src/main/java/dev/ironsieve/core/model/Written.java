package dev.ironsieve.core.model;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;

/**
 * The hosts and times that a rulebase's objects and rules say, and the vocabularies that follow.
 * They hang on what the rules say, so a rule that says something new brings others.
 */
final class Written {
  private final Map<Coordinate, Set<String>> names = new EnumMap<>(Coordinate.class); // of objects
  private final Map<Coordinate, Map<String, String>> literals; // as written, by key
  private final Map<Coordinate, Set<String>> members = new EnumMap<>(Coordinate.class);
  private final List<Vocabulary> vocabularies = new ArrayList<>();

  /**
   * @param pinned of these coordinates nothing can be written
   * @param others hosts and times that somebody else says, to be told apart too
   */
  Written(
      List<Vocabulary> pinned,
      List<TermObject> objects,
      List<Rule> rules,
      Map<Coordinate, Set<String>> others) {
    for (ObjectKind kind : List.of(ObjectKind.HOST_LIST, ObjectKind.SCHEDULE)) {
      Coordinate coordinate = kind.coordinate();
      List<TermObject> own = objects.stream().filter(object -> object.kind() == kind).toList();
      if (pinned.stream().noneMatch(vocabulary -> vocabulary.coordinate() == coordinate)) {
        Set<String> keys = new HashSet<>();
        own.forEach(object -> keys.add(Names.key(object.name())));
        names.put(coordinate, keys);
      } else if (!own.isEmpty()) {
        throw new InvalidModel(
            kind.word() + " \"" + own.getFirst().name() + "\"",
            "either such objects or a " + coordinate.word() + " vocabulary",
            "both");
      }
    }
    literals = literals(rules);
    names.keySet().forEach(coordinate -> members.put(coordinate, new HashSet<>()));
    names.forEach(
        (coordinate, keys) -> {
          List<TermObject> own =
              objects.stream().filter(o -> o.kind().coordinate() == coordinate).toList();
          Map<String, String> said = new TreeMap<>(literals.get(coordinate)); // by key
          others
              .getOrDefault(coordinate, Set.of())
              .forEach(other -> said.putIfAbsent(Names.key(other), other));
          own.forEach(object -> members.get(coordinate).addAll(object.members()));
          members.get(coordinate).addAll(said.values());
          if (!own.isEmpty() || !said.isEmpty()) {
            List<String> sorted = List.copyOf(said.values());
            vocabularies.add(
                coordinate == Coordinate.SITE
                    ? SiteVocabulary.of(own, sorted)
                    : TimeVocabulary.of(own, sorted));
          }
        });
  }

  private Map<Coordinate, Map<String, String>> literals(List<Rule> rules) {
    Map<Coordinate, Map<String, String>> out = new EnumMap<>(Coordinate.class);
    names.keySet().forEach(coordinate -> out.put(coordinate, new LinkedHashMap<>()));
    for (Rule rule : rules) {
      if (rule.terms().isEmpty()) {
        continue;
      }
      names.forEach(
          (coordinate, keys) -> {
            for (String said : rule.term(coordinate).mentioned()) {
              String key = Names.key(said);
              if (!keys.contains(key)
                  && !out.get(coordinate).containsKey(key)
                  && TermObject.isLiteral(coordinate, said)) {
                out.get(coordinate).put(key, said);
              }
            }
          });
    }
    return out;
  }

  /** Whether some rules say just the same. */
  boolean isOf(List<Rule> rules) {
    Map<Coordinate, Map<String, String>> said = literals(rules);
    return names.keySet().stream()
        .allMatch(c -> said.get(c).keySet().equals(literals.get(c).keySet()));
  }

  /** Every host and time that is said, itself or in an object. */
  Map<Coordinate, Set<String>> members() {
    return members;
  }

  /** All vocabularies, in the order of their coordinates. */
  List<Vocabulary> with(List<Vocabulary> pinned) {
    List<Vocabulary> out = new ArrayList<>(pinned);
    out.addAll(vocabularies);
    if (!vocabularies.isEmpty()) {
      out.sort(Comparator.comparing(Vocabulary::coordinate));
    }
    return List.copyOf(out);
  }
}
