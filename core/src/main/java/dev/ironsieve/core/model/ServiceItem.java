package dev.ironsieve.core.model;

import dev.ironsieve.core.sets.InvalidText;

/** What can stand in a criterion about services or in a service object. */
public sealed interface ServiceItem permits ServiceLiteral, ServiceItem.Named {
  /** A service meant by its name. */
  record Named(String name) implements ServiceItem {
    public Named {
      Names.checkObject("service", name);
    }

    @Override
    public String toString() {
      return name;
    }
  }

  /**
   * Reads a service literal (see {@link ServiceLiteral}) or else a name.
   *
   * @throws InvalidText if it is meant as a literal and is none
   * @throws InvalidModel if it is meant as a name and cannot be one
   */
  static ServiceItem parse(String text) {
    return ServiceLiteral.looksLikeOne(text) ? ServiceLiteral.parse(text) : new Named(text);
  }
}
