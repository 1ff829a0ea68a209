package dev.ironsieve.core.ruleindex;

import java.util.Arrays;

/** A growing list of ints. */
final class IntList {
  private int[] items;
  private int size;

  IntList() {
    items = new int[8];
  }

  IntList(IntList other) {
    items = other.items.clone();
    size = other.size;
  }

  int size() {
    return size;
  }

  int get(int i) {
    return items[i];
  }

  void add(int item) {
    if (size == items.length) {
      items = Arrays.copyOf(items, size * 2);
    }
    items[size++] = item;
  }

  int[] toArray() {
    return Arrays.copyOf(items, size);
  }

  /** Removes one occurrence; the order of the rest stays. */
  void remove(int item) {
    for (int i = 0; i < size; i++) {
      if (items[i] == item) {
        System.arraycopy(items, i + 1, items, i, size - i - 1);
        size--;
        return;
      }
    }
    throw new IllegalArgumentException(item + " is not there");
  }
}
