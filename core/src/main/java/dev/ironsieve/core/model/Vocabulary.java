package dev.ironsieve.core.model;

import dev.ironsieve.core.sets.IntSet;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
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
 */
public record Vocabulary(
    Coordinate coordinate, String edition, List<String> values, List<Term> terms) {
  /** Most values of one coordinate, and most sets. */
  public static final int MAX_ENTRIES = 1_000_000;

  /**
   * A named set.
   *
   * @param members numbers of values
   */
  public record Term(String name, IntSet members) {
    public Term {
      Names.checkTitle("term", name);
    }
  }

  public Vocabulary {
    values = List.copyOf(values);
    terms = List.copyOf(terms);
    edition = Names.checkTitle("edition", edition);
    String place = coordinate.word() + " vocabulary";
    if (values.isEmpty() || values.size() > MAX_ENTRIES || terms.size() > MAX_ENTRIES) {
      throw new InvalidModel(
          place,
          "1 to " + MAX_ENTRIES + " values and at most as many sets",
          values.size() + " and " + terms.size());
    }
    for (String value : values) {
      Names.checkTitle(coordinate.word() + " value", value);
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
      int[] members = new int[(int) term.members().size()];
      for (int i = 0; i < members.length; i++) {
        members[i] = numbers.get(values.get(term.members().get(i)));
      }
      Arrays.sort(members);
      IntSet.Builder out = new IntSet.Builder();
      for (int member : members) {
        out.addInOrder(member, member);
      }
      renumbered.add(new Term(term.name(), out.build()));
    }
    return new Vocabulary(coordinate, edition, all, renumbered);
  }

  /** The values of two editions: those of {@code before}, then those that only this has. */
  public List<String> valuesWith(Vocabulary before) {
    Set<String> all = new LinkedHashSet<>(before.values);
    all.addAll(values);
    return List.copyOf(all);
  }

  /** What each name, in lower case, stands for. Made anew at each call; O(values + terms). */
  public Map<String, IntSet> meanings() {
    return numbers(values, terms);
  }
}
