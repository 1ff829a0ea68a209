package dev.ironsieve.core.model;

import dev.ironsieve.core.sets.AddressRange;
import dev.ironsieve.core.sets.InvalidText;
import java.util.List;

/** An item of an address criterion or of an address object. */
public sealed interface AddressItem {
  /** One address, prefix or range. */
  record Literal(AddressRange range) implements AddressItem {
    @Override
    public boolean equals(Object o) {
      return o instanceof Literal other && range.equals(other.range);
    }

    @Override
    public int hashCode() {
      return range.hashCode();
    }

    @Override
    public String toString() {
      return range.toString();
    }
  }

  /** An address object or group, meant by its name. */
  record Named(String name) implements AddressItem {
    public Named {
      Names.checkObject("address", name);
    }

    @Override
    public String toString() {
      return name;
    }
  }

  /**
   * Reads an address, a prefix, a range, or else a name. Text with a colon or a slash, or that
   * starts with a digit, can only be a literal.
   *
   * @throws InvalidText if it is meant as a literal and is none
   * @throws InvalidModel if it is meant as a name and cannot be one
   */
  static AddressItem parse(String text) {
    boolean literal =
        text.indexOf(':') >= 0
            || text.indexOf('/') >= 0
            || (!text.isEmpty() && Character.isDigit(text.charAt(0)));
    return literal ? new Literal(AddressRange.parse(text)) : new Named(text);
  }

  /** The names of objects among some items. */
  public static List<String> names(List<AddressItem> items) {
    return items.stream()
        .filter(Named.class::isInstance)
        .map(item -> ((Named) item).name())
        .toList();
  }
}
