package dev.ironsieve.core.text;

import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Names;
import dev.ironsieve.core.model.Vocabulary;
import dev.ironsieve.core.sets.IntSet;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;

/** Completes the beginning of a name of a vocabulary. */
public final class TermCompletion {
  private static final int NO_MATCH = 4;

  private TermCompletion() {}

  /**
   * One name.
   *
   * @param members how many values it stands for; 1 for a value
   * @param some the first few of these, for a set
   */
  public record Option(Coordinate coordinate, String name, int members, List<String> some) {
    /** Most members that a completion lists. */
    public static final int MOST_SHOWN = 6;
  }

  private record Ranked(int rank, Vocabulary vocabulary, String name, IntSet members) {}

  /**
   * The names that fit, best first: those that are the text, begin with it, have a word that does,
   * and contain it; among these, sets before values, and short names before long ones. O(names).
   *
   * @param text the typed text; an empty one matches everything
   * @param most how many are wanted
   */
  public static List<Option> of(List<Vocabulary> vocabularies, String text, int most) {
    String query = Names.key(text.strip());
    List<Ranked> found = new ArrayList<>();
    for (Vocabulary vocabulary : vocabularies) {
      for (Vocabulary.Term term : vocabulary.terms()) {
        add(found, vocabulary, term.name(), term.members(), query);
      }
      List<String> values = vocabulary.values();
      for (int i = 0; i < values.size(); i++) {
        add(found, vocabulary, values.get(i), null, query);
      }
    }
    return found.stream()
        .sorted(
            Comparator.comparingInt(Ranked::rank)
                .thenComparing(ranked -> ranked.members == null)
                .thenComparingInt(ranked -> ranked.name.length())
                .thenComparing(Ranked::name))
        .limit(most)
        .map(TermCompletion::option)
        .toList();
  }

  private static void add(
      List<Ranked> found, Vocabulary vocabulary, String name, IntSet members, String query) {
    int rank = rank(Names.key(name), query);
    if (rank < NO_MATCH) {
      found.add(new Ranked(rank, vocabulary, name, members));
    }
  }

  private static int rank(String name, String query) {
    int at = name.indexOf(query);
    if (at <= 0) {
      return at < 0 ? NO_MATCH : name.length() == query.length() ? 0 : 1;
    }
    for (; at > 0; at = name.indexOf(query, at + 1)) {
      if (!Character.isLetterOrDigit(name.charAt(at - 1))) {
        return 2;
      }
    }
    return 3;
  }

  private static Option option(Ranked ranked) {
    Coordinate coordinate = ranked.vocabulary.coordinate();
    if (ranked.members == null) {
      return new Option(coordinate, ranked.name, 1, List.of());
    }
    List<String> some = new ArrayList<>();
    for (int i = 0; i < Math.min(Option.MOST_SHOWN, ranked.members.size()); i++) {
      some.add(ranked.vocabulary.values().get(ranked.members.get(i)));
    }
    return new Option(coordinate, ranked.name, (int) ranked.members.size(), some);
  }
}
