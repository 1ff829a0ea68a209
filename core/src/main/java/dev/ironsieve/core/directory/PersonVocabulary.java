package dev.ironsieve.core.directory;

import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Defaults;
import dev.ironsieve.core.model.Names;
import dev.ironsieve.core.model.Vocabulary;
import dev.ironsieve.core.model.Vocabulary.Term;
import dev.ironsieve.core.sets.IntSet;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.function.Function;
import java.util.regex.Pattern;

/**
 * Everything that rules can say of the people of a snapshot: each person as a value; as sets
 * {@value #ANY}, each group with those of the groups inside it, and {@code ATTRIBUTE is VALUE},
 * {@code ATTRIBUTE contains WORD} and {@code ATTRIBUTE is set} for what the directory says of them.
 * Words are runs of letters and digits, in small letters; those that stand in no longer value are
 * left out, since {@code is} says the same.
 *
 * <p>People who are called the same have their ids behind their names, all of them, so that a rule
 * that means one of them never comes to mean another who arrives later: the name that it says is
 * then no longer known. The same holds for groups. A group that is called like a person has {@code
 * (group)} behind its name. A name with an id that is too long is cut; an attribute with a value
 * that is too long cannot be said.
 */
public final class PersonVocabulary {
  /** The value of a connection for which nobody is signed in. */
  public static final String NOBODY = Defaults.NOBODY;

  /** The value for a person who is signed in but not in the directory. */
  public static final String UNLISTED = "signed in but unlisted";

  /** Everybody who is signed in, listed or not. */
  public static final String ANY = "any signed in";

  private static final int LISTED = 2; // the first number of a person

  /** Stands between an attribute and a word that one of its values has. */
  public static final String CONTAINS = " contains ";

  private static final Pattern BETWEEN_WORDS = Pattern.compile("[^\\p{L}\\p{N}]+");

  private final Snapshot snapshot;
  private final List<String> values = new ArrayList<>();
  private final Set<String> taken = new HashSet<>(); // keys of values and terms

  private PersonVocabulary(Snapshot snapshot) {
    this.snapshot = snapshot;
    for (String name : List.of(NOBODY, UNLISTED, ANY)) {
      taken.add(Names.key(name));
    }
    values.add(NOBODY);
    values.add(UNLISTED);
    values.addAll(named(snapshot.people(), Person::name, Person::id, ""));
  }

  /** O(people + groups · nesting). */
  public static Vocabulary of(Snapshot snapshot) {
    return new PersonVocabulary(snapshot).vocabulary();
  }

  /** The name of each person in rules, in the snapshot's order. */
  public static List<String> names(Snapshot snapshot) {
    List<String> values = new PersonVocabulary(snapshot).values;
    return values.subList(LISTED, values.size());
  }

  /**
   * Names under which things can be told apart from each other and from what is taken.
   *
   * @param kind what stands behind a name that something of another kind has
   */
  private <T> List<String> named(
      List<T> things, Function<T, String> name, Function<T, String> id, String kind) {
    Map<String, Integer> calls = new HashMap<>();
    things.forEach(thing -> calls.merge(Names.key(name.apply(thing)), 1, Integer::sum));
    List<String> out = new ArrayList<>();
    for (T thing : things) {
      String plain = name.apply(thing);
      boolean shared = calls.get(Names.key(plain)) > 1;
      String wanted =
          shared || (kind.isEmpty() && taken.contains(Names.key(plain)))
              ? plain + " (" + id.apply(thing) + ")"
              : taken.contains(Names.key(plain)) ? plain + " (" + kind + ")" : plain;
      out.add(free(wanted));
    }
    return out;
  }

  private String free(String wanted) {
    String name = wanted.substring(0, Math.min(wanted.length(), Names.MAX_NAME));
    for (int next = 2; !taken.add(Names.key(name)); next++) {
      String end = " " + next;
      name = wanted.substring(0, Math.min(wanted.length(), Names.MAX_NAME - end.length())) + end;
    }
    return name;
  }

  private Vocabulary vocabulary() {
    List<Term> terms = new ArrayList<>();
    terms.add(new Term(ANY, IntSet.range(1, values.size() - 1)));
    List<String> names = named(snapshot.groups(), Group::name, Group::id, "group");
    BitSet[] members = members();
    for (int i = 0; i < members.length; i++) {
      terms.add(new Term(names.get(i), set(members[i])));
    }
    attributes()
        .forEach(
            (said, people) -> {
              if (said.length() <= Names.MAX_NAME && taken.add(Names.key(said))) {
                terms.add(new Term(said, set(people)));
              }
            });
    return new Vocabulary(Coordinate.PERSON, snapshot.edition(), values, terms);
  }

  /** Numbers of the people of each group. */
  private BitSet[] members() {
    Map<String, Integer> people =
        Snapshot.numbers(snapshot.people().stream().map(Person::id).toList(), "person");
    Map<String, Integer> groups =
        Snapshot.numbers(snapshot.groups().stream().map(Group::id).toList(), "group");
    BitSet[] out = new BitSet[snapshot.groups().size()];
    int[][] inside = new int[out.length][];
    for (int i = 0; i < out.length; i++) {
      Group group = snapshot.groups().get(i);
      BitSet own = new BitSet();
      group.people().forEach(id -> own.set(LISTED + people.get(Names.key(id))));
      out[i] = own;
      inside[i] = group.groups().stream().mapToInt(id -> groups.get(Names.key(id))).toArray();
    }
    // As many rounds as groups are nested deep; a loop needs no more.
    for (boolean more = true; more; ) {
      more = false;
      for (int i = 0; i < out.length; i++) {
        int before = out[i].cardinality();
        for (int other : inside[i]) {
          out[i].or(out[other]);
        }
        more |= out[i].cardinality() > before;
      }
    }
    return out;
  }

  private Map<String, BitSet> attributes() {
    Map<String, BitSet> out = new TreeMap<>();
    Map<String, BitSet> containing = new TreeMap<>();
    for (int i = 0; i < snapshot.people().size(); i++) {
      int number = LISTED + i;
      snapshot
          .people()
          .get(i)
          .attributes()
          .forEach(
              (attribute, said) -> {
                out.computeIfAbsent(attribute + " is set", k -> new BitSet()).set(number);
                for (String value : said) {
                  out.computeIfAbsent(attribute + " is " + value, k -> new BitSet()).set(number);
                  List<String> words =
                      BETWEEN_WORDS
                          .splitAsStream(Names.key(value))
                          .filter(word -> !word.isEmpty())
                          .map(word -> attribute + CONTAINS + word)
                          .toList();
                  words.forEach(
                      name -> containing.computeIfAbsent(name, k -> new BitSet()).set(number));
                }
              });
    }
    containing.forEach(out::putIfAbsent);
    return out;
  }

  private static IntSet set(BitSet members) {
    IntSet.Builder out = new IntSet.Builder();
    for (int from = members.nextSetBit(0); from >= 0; ) {
      int to = members.nextClearBit(from);
      out.addInOrder(from, to - 1);
      from = members.nextSetBit(to);
    }
    return out.build();
  }
}
