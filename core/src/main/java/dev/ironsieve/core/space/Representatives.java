package dev.ironsieve.core.space;

import dev.ironsieve.core.sets.IntSet;
import dev.ironsieve.core.sets.Ints;
import java.util.Arrays;
import java.util.Collection;
import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.Map;
import java.util.SplittableRandom;
import java.util.function.LongToIntFunction;

/**
 * The classes of codes of one axis that some sets distinguish, updated while sets come and go: one
 * representative for each group of classes that are in the same sets. For addresses and numbers
 * only neighbouring classes form a group.
 *
 * <p>The groups and their order, by lowest value, depend on the sets alone, not on the history.
 *
 * <p>Each set has a word; the word of a code is the exclusive or of the words of the sets that hold
 * it, so codes with the same word are in the same sets, but for one case in 2<sup>64</sup>
 * (Zobrist, A New Hashing Method with Application for Game Playing, 1970). Stored are the changes
 * of words where sets begin, and behind their ends:
 *
 * <pre>
 *   codes    0             8              16             24
 *   sets      [      a      ][      a      ]
 *                            [             b             ]
 *   changes   a              b              a              b
 *   words     a              a^b            b              0
 * </pre>
 *
 * Several threads may draw at once, but not while a set comes or goes.
 */
public final class Representatives {
  /** Of so many representatives of a set one is searched for rather than guessed. */
  private static final int FEW = 64;

  private final Axis line;
  private final Map<IntSet, Integer> held = new IdentityHashMap<>(); // how often each was added
  private int[] at; // codes where words change, ascending
  private long[] changes; // of the words there
  private int size; // of both
  private InOrder names; // where groups are not of neighbours only; null if outdated

  /**
   * The representatives of the groups of an axis.
   *
   * @param codes ascending
   * @param places of each of these in the order of values
   * @param inOrder the codes, by place
   */
  private record InOrder(int[] codes, int[] places, int[] inOrder) {}

  /**
   * The groups of a set that can be drawn, in the order of values.
   *
   * @param count how many groups there are
   * @param drawn takes any number, as likely as any other, and gives a code of a group, as likely
   *     as any other; where there is a group more or less, most numbers give the same group as
   *     before or one beside it
   */
  public record Draws(int count, LongToIntFunction drawn) {}

  /**
   * @param line that is not laid out anew while this is used
   * @param sets each as often as it will be taken away; equal ones are the same object
   */
  Representatives(Axis line, Collection<IntSet> sets) {
    this.line = line;
    sets.forEach(set -> held.merge(set, 1, Integer::sum));
    int[] borders = line.borders();
    int bounds = 2 * held.keySet().stream().mapToInt(IntSet::intervals).sum();
    at = Arrays.copyOf(borders, borders.length + bounds);
    int count = borders.length;
    for (IntSet set : held.keySet()) {
      for (int i = 0; i < set.intervals(); i++) {
        at[count++] = set.first(i);
        at[count++] = set.last(i) + 1;
      }
    }
    at = Ints.distinct(at, count);
    size = at.length;
    changes = new long[size];
    for (int border : borders) {
      change(border, mixed(border));
    }
    held.keySet().forEach(this::change);
    prepare();
  }

  /** Adds a set once more; true if it is new. */
  public boolean add(IntSet set) {
    boolean fresh = held.merge(set, 1, Integer::sum) == 1;
    if (fresh) {
      change(set);
    }
    return fresh;
  }

  /** Removes a set once; whether that was its last use. */
  public boolean remove(IntSet set) {
    boolean gone = held.merge(set, -1, (a, b) -> a + b == 0 ? null : a + b) == null;
    if (gone) {
      change(set);
    }
    return gone;
  }

  private void change(IntSet set) {
    long word = 0;
    for (int i = 0; i < set.intervals(); i++) {
      word = mixed(word ^ ((long) set.first(i) << Integer.SIZE | set.last(i)));
    }
    for (int i = 0; i < set.intervals(); i++) {
      change(set.first(i), word);
      change(set.last(i) + 1, word);
    }
    names = null;
  }

  /** Mixes every bit of a number into every other: the last step of SplitMix64. */
  private static long mixed(long number) {
    return new SplittableRandom(number).nextLong();
  }

  private void change(int code, long word) {
    int index = index(code);
    if (index == size || at[index] != code) {
      if (size == at.length) {
        at = Arrays.copyOf(at, size + size / 2 + 16);
        changes = Arrays.copyOf(changes, at.length);
      }
      System.arraycopy(at, index, at, index + 1, size - index);
      System.arraycopy(changes, index, changes, index + 1, size - index);
      at[index] = code;
      changes[index] = 0;
      size++;
    }
    changes[index] ^= word;
    if (changes[index] == 0) {
      size--;
      System.arraycopy(at, index + 1, at, index, size - index);
      System.arraycopy(changes, index + 1, changes, index, size - index);
    }
  }

  /** The number of lower codes at which names change. */
  private int index(int code) {
    return lower(at, size, code);
  }

  private static int lower(int[] ascending, int size, int code) {
    int found = Arrays.binarySearch(ascending, 0, size, code);
    return found >= 0 ? found : -found - 1;
  }

  /** Finds the groups, if sets came or went since; to be done before there is drawn. */
  public void prepare() {
    if (names != null || !(line instanceof SymbolAxis symbols)) {
      return;
    }
    Map<Long, Integer> lowest = new HashMap<>(); // value, by word
    long word = 0;
    int end = line.code(line.classes());
    for (int i = 0; i < size && at[i] < end; i++) {
      word ^= changes[i];
      int next = i + 1 < size ? at[i + 1] : end;
      lowest.merge(word, symbols.lowest(at[i], next - 1), Math::min);
    }
    int[] inOrder = lowest.values().stream().sorted().mapToInt(symbols::codeOf).toArray();
    int[] codes = inOrder.clone();
    Arrays.sort(codes);
    int[] places = new int[codes.length];
    for (int place = 0; place < places.length; place++) {
      places[Arrays.binarySearch(codes, inOrder[place])] = place;
    }
    names = new InOrder(codes, places, inOrder);
  }

  /**
   * @param set not empty; told apart here
   */
  public Draws of(IntSet set) {
    return line instanceof SymbolAxis ? ofNames(set) : ofRuns(set);
  }

  private static int rank(long drawn, int count) {
    return (int) Math.unsignedMultiplyHigh(drawn, count);
  }

  /** Each code where words change begins a group. */
  private Draws ofRuns(IntSet set) {
    int first = index(set.min());
    if (set.intervals() == 1) {
      int count = index(set.max() + 1) - first;
      return new Draws(count, drawn -> at[first + rank(drawn, count)]);
    }
    int[] from = new int[set.intervals()]; // of the groups of each interval the first
    int[] before = new int[set.intervals()]; // how many groups lower intervals have
    int groups = 0;
    for (int i = 0; i < from.length; i++) {
      from[i] = index(set.first(i));
      before[i] = groups;
      groups += index(set.last(i) + 1) - from[i];
    }
    int count = groups;
    return new Draws(
        count,
        drawn -> {
          int rank = rank(drawn, count);
          int interval = lower(before, before.length, rank + 1) - 1;
          return at[from[interval] + rank - before[interval]];
        });
  }

  private Draws ofNames(IntSet set) {
    int[] all = names.inOrder;
    if (set == line.all()) {
      return new Draws(all.length, drawn -> all[rank(drawn, all.length)]);
    }
    int count = 0;
    int[] some = new int[FEW]; // places
    for (int i = 0; i < set.intervals(); i++) {
      int end = lower(names.codes, all.length, set.last(i) + 1);
      for (int j = lower(names.codes, all.length, set.first(i)); j < end; j++, count++) {
        if (count < FEW) {
          some[count] = names.places[j];
        }
      }
    }
    if (count > FEW) {
      return new Draws(count, drawn -> guessed(set, all, drawn));
    }
    int[] few = Arrays.copyOf(some, count);
    Arrays.sort(few);
    return new Draws(few.length, drawn -> all[few[rank(drawn, few.length)]]);
  }

  private static int guessed(IntSet set, int[] codes, long drawn) {
    int code = codes[rank(drawn, codes.length)];
    SplittableRandom more = new SplittableRandom(drawn);
    while (!set.contains(code)) {
      code = codes[rank(more.nextLong(), codes.length)];
    }
    return code;
  }
}
