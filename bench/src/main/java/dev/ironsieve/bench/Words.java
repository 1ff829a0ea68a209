package dev.ironsieve.bench;

import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Vocabulary;
import dev.ironsieve.core.model.Vocabulary.Term;
import dev.ironsieve.core.sets.IntSet;
import java.util.ArrayList;
import java.util.List;
import java.util.SplittableRandom;

/** Vocabularies of made-up people, devices, sites, applications, file kinds and hours. */
final class Words {
  private static final String[] DAYS = {"mon", "tue", "wed", "thu", "fri", "sat", "sun"};

  private Words() {}

  /**
   * @param scattered whether sets are random subsets rather than runs of neighbours
   */
  static List<Vocabulary> vocabularies(SplittableRandom random, boolean scattered) {
    return List.of(
        vocabulary(Coordinate.PERSON, "person", 500, 120, 25, random, scattered),
        vocabulary(Coordinate.DEVICE, "state", 24, 12, 8, random, scattered),
        vocabulary(Coordinate.SITE, "site", 600, 100, 30, random, scattered),
        vocabulary(Coordinate.APPLICATION, "use", 800, 150, 20, random, scattered),
        vocabulary(Coordinate.FILE_KIND, "kind", 20, 8, 5, random, scattered),
        hours(random));
  }

  /**
   * A vocabulary with more terms behind its own: one for each bit of the numbers of its values, for
   * the values that have it, as far as every pattern of bits has a value.
   */
  static Vocabulary withBits(Vocabulary own) {
    int count = own.values().size();
    List<Term> terms = new ArrayList<>(own.terms());
    for (int bit = 0; 2 << bit <= count; bit++) {
      IntSet.Builder members = new IntSet.Builder();
      for (int value = 0; value < count; value++) {
        if ((value >> bit & 1) != 0) {
          members.addInOrder(value, value);
        }
      }
      terms.add(new Term(own.coordinate().word() + " bit " + bit, members.build()));
    }
    return new Vocabulary(own.coordinate(), "generated", own.values(), terms);
  }

  private static Vocabulary vocabulary(
      Coordinate coordinate,
      String word,
      int values,
      int sets,
      int most,
      SplittableRandom random,
      boolean scattered) {
    List<String> names = new ArrayList<>();
    for (int i = 0; i < values; i++) {
      names.add(word + " " + i);
    }
    List<Term> terms = new ArrayList<>();
    for (int i = 0; i < sets; i++) {
      int size = 1 + random.nextInt(most);
      terms.add(
          new Term(
              word + " set " + i,
              scattered ? scattered(values, size, random) : run(values, size, random)));
    }
    return new Vocabulary(coordinate, "generated", names, terms);
  }

  private static IntSet run(int values, int size, SplittableRandom random) {
    int first = random.nextInt(values - size + 1);
    return IntSet.range(first, first + size - 1);
  }

  private static IntSet scattered(int values, int size, SplittableRandom random) {
    IntSet out = IntSet.EMPTY;
    for (int i = 0; i < size; i++) {
      out = out.union(IntSet.of(random.nextInt(values)));
    }
    return out;
  }

  private static Vocabulary hours(SplittableRandom random) {
    List<String> hours = new ArrayList<>();
    for (String day : DAYS) {
      for (int hour = 0; hour < 24; hour++) {
        hours.add("%s %02d:00".formatted(day, hour));
      }
    }
    List<Term> terms = new ArrayList<>();
    for (int i = 0; i < 20; i++) {
      int from = random.nextInt(20);
      int to = from + 1 + random.nextInt(23 - from);
      IntSet.Builder members = new IntSet.Builder();
      for (int day = random.nextInt(3); day < 3 + random.nextInt(5); day++) {
        members.addInOrder(day * 24 + from, day * 24 + to);
      }
      terms.add(new Term("schedule " + i, members.build()));
    }
    return new Vocabulary(Coordinate.TIME, "generated", hours, terms);
  }
}
