package dev.ironsieve.core.catalogue;

import dev.ironsieve.core.edition.EditionChange;
import dev.ironsieve.core.model.Names;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/** Compares editions of the catalogue. */
public final class CatalogueChange {
  private CatalogueChange() {}

  /** Applications are the same by name; O(applications). */
  public static EditionChange between(Catalogue before, Catalogue after) {
    return EditionChange.between(
        byName(before), byName(after), Application::name, CatalogueChange::differences);
  }

  private static Map<String, Application> byName(Catalogue catalogue) {
    Map<String, Application> out = new LinkedHashMap<>();
    catalogue.applications().forEach(a -> out.put(Names.key(a.name()), a));
    return out;
  }

  private static List<String> differences(Application was, Application is) {
    List<String> out = new ArrayList<>();
    EditionChange.say(out, "name", was.name(), is.name());
    EditionChange.say(out, "summary", was.summary(), is.summary());
    EditionChange.say(out, "category", was.category(), is.category());
    EditionChange.say(out, "risk", was.risk(), is.risk());
    EditionChange.say(out, "usefulness", was.usefulness(), is.usefulness());
    EditionChange.say(out, "tags", was.tags(), is.tags());
    EditionChange.say(out, "ports", was.ports(), is.ports());
    EditionChange.say(out, "hosts", was.hosts(), is.hosts());
    EditionChange.say(out, "needs", was.needs(), is.needs());
    EditionChange.say(out, "carries", was.carries(), is.carries());
    EditionChange.say(out, "features", features(was), features(is));
    if (!was.signatures().equals(is.signatures())) {
      out.add(
          "signatures are others (%d before, %d now)"
              .formatted(was.signatures().size(), is.signatures().size()));
    }
    return List.copyOf(out);
  }

  private static List<String> features(Application application) {
    return application.features().stream()
        .map(f -> f.name() + (f.seenSealed() ? " (seen sealed)" : ""))
        .toList();
  }
}
