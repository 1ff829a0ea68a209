package dev.ironsieve.core.order;

import java.util.Arrays;

/** A growing list of ints. */
final class Numbers {
  private int[] items;
  private int size;

  Numbers() {
    items = new int[8];
  }

  Numbers(Numbers other) {
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

  /** Takes out one occurrence; the order of the rest stays. */
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
