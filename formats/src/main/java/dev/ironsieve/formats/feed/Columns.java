package dev.ironsieve.formats.feed;

import dev.ironsieve.core.model.FeedKind;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;

/**
 * The positions of the columns in a line of a feed.
 *
 * @param what the column with the address, prefix, range or host; or with the first address
 * @param last the column with the last address; -1 if there is none
 * @param set the column with the country or category; -1 if there is none
 * @param count how many columns a line has at least
 */
record Columns(int what, int last, int set, int count) {
  private static final String ADDRESS = "address";
  private static final String FIRST = "first";
  private static final String LAST = "last";
  private static final String HOST = "host";

  /** The columns that a header must have. */
  static String expected(FeedKind kind) {
    return switch (kind) {
      case ADDRESSES -> "an address, prefix or range";
      case COUNTRIES -> "address,country or first,last,country";
      case CATEGORIES -> "host,category";
    };
  }

  private static String setTitle(FeedKind kind) {
    return switch (kind) {
      case ADDRESSES -> "";
      case COUNTRIES -> "country";
      case CATEGORIES -> "category";
    };
  }

  /** The columns that a first line names; null if it is no header. */
  static Columns named(FeedKind kind, List<String> fields) {
    List<String> titles = new ArrayList<>();
    fields.forEach(field -> titles.add(field.strip().toLowerCase(Locale.ROOT)));
    int what = titles.indexOf(kind == FeedKind.CATEGORIES ? HOST : ADDRESS);
    int last = -1;
    if (what < 0 && kind != FeedKind.CATEGORIES) {
      what = titles.indexOf(FIRST);
      last = titles.indexOf(LAST);
    }
    int set = kind == FeedKind.ADDRESSES ? -1 : titles.indexOf(setTitle(kind));
    boolean whole = what >= 0 && (set >= 0 || kind == FeedKind.ADDRESSES);
    return whole ? new Columns(what, last, set, 1 + Math.max(what, Math.max(last, set))) : null;
  }

  /** The columns of a file without a header, by how many fields a line has. */
  static Columns usual(FeedKind kind, int fields) {
    return switch (kind) {
      case ADDRESSES -> new Columns(0, -1, -1, 1);
      case COUNTRIES -> fields > 2 ? new Columns(0, 1, 2, 3) : new Columns(0, -1, 1, 2);
      case CATEGORIES -> new Columns(0, -1, 1, 2);
    };
  }
}
