package dev.ironsieve.core.model;

import java.util.Locale;

/** The kind of a feed's entries. */
public enum FeedKind {
  /** Addresses, all in one set that is called as the feed is: a block list. */
  ADDRESSES(ObjectKind.ADDRESS),
  /** Countries, each a set of addresses; none in two. */
  COUNTRIES(ObjectKind.ADDRESS),
  /** Categories, each a set of hosts. */
  CATEGORIES(ObjectKind.HOST_LIST);

  private final ObjectKind objects;

  FeedKind(ObjectKind objects) {
    this.objects = objects;
  }

  /** The kind of objects that its sets are like, where rules mention them. */
  public ObjectKind objects() {
    return objects;
  }

  public String word() {
    return name().toLowerCase(Locale.ROOT);
  }
}
