package dev.ironsieve.core.model;

import dev.ironsieve.core.sets.IntSet;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * Everything that rules can say of one coordinate, in one pinned edition: the values that a
 * connection can have, and named sets of them. A rule may name values and sets alike.
 *
 * @param coordinate what the values are of
 * @param edition which edition of its source this is, for people
 * @param values every value by name; its place in the list is its number
 * @param terms the named sets
 * @param applications facts of each application; only for the coordinate of applications
 */
public record Vocabulary(
    Coordinate coordinate,
    String edition,
    List<String> values,
    List<Term> terms,
    List<ApplicationFact> applications) {
  /** Most values of one coordinate, and most sets. */
  public static final int MAX_ENTRIES = 1_000_000;

  /**
   * A named set.
   *
   * @param members numbers of values
   */
  public record Term(String name, IntSet members) {
    public Term {
      Names.checkValue("term", name);
    }
  }

  public Vocabulary {
    values = List.copyOf(values);
    terms = List.copyOf(terms);
    applications = List.copyOf(applications);
    edition = Names.checkTitle("edition", edition);
    String place = coordinate.word() + " vocabulary";
    if (values.isEmpty() || values.size() > MAX_ENTRIES || terms.size() > MAX_ENTRIES) {
      throw new InvalidModel(
          place,
          "1 to " + MAX_ENTRIES + " values and at most as many sets",
          values.size() + " and " + terms.size());
    }
    for (String value : values) {
      Names.checkValue(coordinate.word() + " value", value);
    }
    for (Term term : terms) {
      if (!term.members().isEmpty() && term.members().max() >= values.size()) {
        throw new InvalidModel(
            place, "numbers of values below " + values.size(), term.members().max() + "");
      }
    }
    if (numbers(values, terms).size() != values.size() + terms.size()) {
      throw new InvalidModel(place, "each name once", "one of them twice");
    }
    check(place, coordinate, values, applications);
  }

  /** A vocabulary whose values and sets have no further facts. */
  public Vocabulary(Coordinate coordinate, String edition, List<String> values, List<Term> terms) {
    this(coordinate, edition, values, terms, List.of());
  }

  private static void check(
      String place,
      Coordinate coordinate,
      List<String> values,
      List<ApplicationFact> applications) {
    if (!applications.isEmpty() && coordinate != Coordinate.APPLICATION) {
      throw new InvalidModel(place, "no applications", applications.size() + "");
    }
    Set<String> names = new HashSet<>();
    for (ApplicationFact fact : applications) {
      if (!names.add(Names.key(fact.name()))) {
        throw new InvalidModel(
            place + ", applications", "each name once", Names.quoted(fact.name()) + " twice");
      }
      if (fact.uses().max() >= values.size()) {
        throw new InvalidModel(
            place, "numbers of values below " + values.size(), fact.uses().max() + "");
      }
    }
    for (ApplicationFact fact : applications) {
      String where = place + ", application \"" + fact.name() + "\", ";
      checkKnown(where + "needs", fact.needs(), names);
      checkKnown(where + "carries", fact.carries(), names);
    }
  }

  private static void checkKnown(String place, List<String> said, Set<String> names) {
    for (String name : said) {
      if (!names.contains(Names.key(name))) {
        throw new InvalidModel(place, "the name of an application", Names.quoted(name));
      }
    }
  }

  private static Map<String, IntSet> numbers(List<String> values, List<Term> terms) {
    Map<String, IntSet> out = HashMap.newHashMap(values.size() + terms.size());
    for (int i = 0; i < values.size(); i++) {
      out.put(Names.key(values.get(i)), IntSet.of(i));
    }
    for (Term term : terms) {
      out.put(Names.key(term.name()), term.members());
    }
    return out;
  }

  /**
   * The same sets over more values, so that two editions can be compared: to this the values that
   * only the other has are in no set.
   *
   * @param all values in the order that they are to have, among them all of this
   */
  public Vocabulary over(List<String> all) {
    Map<String, Integer> numbers = HashMap.newHashMap(all.size());
    all.forEach(value -> numbers.put(value, numbers.size()));
    List<Term> renumbered = new ArrayList<>();
    for (Term term : terms) {
      renumbered.add(new Term(term.name(), renumbered(term.members(), numbers)));
    }
    List<ApplicationFact> facts = new ArrayList<>();
    for (ApplicationFact fact : applications) {
      facts.add(
          new ApplicationFact(
              fact.name(),
              renumbered(fact.uses(), numbers),
              fact.ports(),
              fact.hosts(),
              fact.needs(),
              fact.carries(),
              renumbered(fact.openedOnly(), numbers)));
    }
    return new Vocabulary(coordinate, edition, all, renumbered, facts);
  }

  private IntSet renumbered(IntSet set, Map<String, Integer> numbers) {
    int[] members = new int[(int) set.size()];
    for (int i = 0; i < members.length; i++) {
      members[i] = numbers.get(values.get(set.get(i)));
    }
    Arrays.sort(members);
    IntSet.Builder out = new IntSet.Builder();
    for (int member : members) {
      out.addInOrder(member, member);
    }
    return out.build();
  }

  /** The values of two editions: those of {@code before}, then those that only this has. */
  public List<String> valuesWith(Vocabulary before) {
    Set<String> all = new LinkedHashSet<>(before.values);
    all.addAll(values);
    return List.copyOf(all);
  }

  /** The values of each name, in lower case. Made anew at each call; O(values + terms). */
  public Map<String, IntSet> meanings() {
    return numbers(values, terms);
  }
}
