package dev.ironsieve.core.model;

import dev.ironsieve.core.sets.InvalidText;
import java.util.List;

/** An item of a service criterion or of a service object. */
public sealed interface ServiceItem
    permits ServiceLiteral, ServiceItem.Named, ServiceItem.UsualPorts {
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

  /** The ports that the catalogue gives for whichever application a connection is of. */
  record UsualPorts() implements ServiceItem {
    /** Its text; no service may have this name. */
    public static final String TEXT = "usual ports";

    @Override
    public String toString() {
      return TEXT;
    }
  }

  /**
   * Reads {@value UsualPorts#TEXT}, a service literal (see {@link ServiceLiteral}) or else a name.
   *
   * @throws InvalidText if it is meant as a literal and is none
   * @throws InvalidModel if it is meant as a name and cannot be one
   */
  static ServiceItem parse(String text) {
    if (Names.key(text).equals(UsualPorts.TEXT)) {
      return new UsualPorts();
    }
    return ServiceLiteral.looksLikeOne(text) ? ServiceLiteral.parse(text) : new Named(text);
  }

  /** The names of objects among some items. */
  public static List<String> names(List<ServiceItem> items) {
    return items.stream()
        .filter(Named.class::isInstance)
        .map(item -> ((Named) item).name())
        .toList();
  }
}
