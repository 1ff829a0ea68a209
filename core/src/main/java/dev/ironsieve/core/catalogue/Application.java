package dev.ironsieve.core.catalogue;

import dev.ironsieve.core.model.InvalidModel;
import dev.ironsieve.core.model.ServiceLiteral;
import dev.ironsieve.core.signature.Signature;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;

/**
 * One application of a catalogue.
 *
 * @param summary one or two sentences
 * @param category the one category that it belongs to
 * @param tags further labels
 * @param risk from 1, harmless, to 5
 * @param usefulness to a business, from 1 to 5, useful to nearly all
 * @param ports the usual ports of its servers
 * @param hosts names of its servers, exact or with a leading {@code *.}
 * @param needs names of applications that separate rules must allow for it to work
 * @param carries names of applications that are let through only inside its own connections
 * @param features things that people can do with it; none if the catalogue does not separate them
 * @param signatures patterns that recognise its connections, beside those that name one of its
 *     hosts
 */
public record Application(
    String name,
    String summary,
    String category,
    List<String> tags,
    int risk,
    int usefulness,
    List<ServiceLiteral> ports,
    List<String> hosts,
    List<String> needs,
    List<String> carries,
    List<Feature> features,
    List<Signature> signatures) {
  private static final int MAX_SUMMARY = 400;
  private static final int MAX_ENTRIES = 200;

  public Application {
    CatalogueNames.check("application", name);
    String place = "application \"" + name + "\"";
    if (summary == null || summary.isBlank() || summary.length() > MAX_SUMMARY) {
      throw new InvalidModel(
          place + ", summary",
          "1 to " + MAX_SUMMARY + " characters",
          summary == null ? "nothing" : summary.length() + "");
    }
    CatalogueNames.check("category", category);
    tags = some(place + ", tags", tags);
    tags.forEach(tag -> CatalogueNames.check("tag", tag));
    grade(place + ", risk", risk);
    grade(place + ", usefulness", usefulness);
    ports = some(place + ", ports", ports);
    hosts = some(place + ", hosts", hosts);
    for (String host : hosts) {
      CatalogueNames.checkHost(place + ", hosts", host);
    }
    needs = some(place + ", needs", needs);
    carries = some(place + ", carries", carries);
    features = some(place + ", features", features);
    Set<String> names = new HashSet<>();
    for (Feature feature : features) {
      if (!names.add(feature.name())) {
        throw new InvalidModel(
            place + ", features", "each name once", "\"" + feature.name() + "\" twice");
      }
    }
    signatures = some(place + ", signatures", signatures);
    for (Signature signature : signatures) {
      if (signature.feature() != null && !names.contains(signature.feature())) {
        throw new InvalidModel(
            place + ", signatures",
            "the name of one of its features",
            CatalogueNames.found(signature.feature()));
      }
    }
  }

  /** The same with one more signature. */
  Application telling(Signature signature) {
    List<Signature> more = new ArrayList<>(signatures);
    more.add(signature);
    return new Application(
        name,
        summary,
        category,
        tags,
        risk,
        usefulness,
        ports,
        hosts,
        needs,
        carries,
        features,
        more);
  }

  /** One of which nothing is known but a signature. */
  static Application own(String name, String category, Signature signature) {
    return new Application(
        name,
        "Added here, with a signature of our own.",
        category,
        List.of(),
        1,
        3,
        List.of(),
        List.of(),
        List.of(),
        List.of(),
        List.of(),
        List.of(signature));
  }

  private static void grade(String place, int grade) {
    if (grade < 1 || grade > 5) {
      throw new InvalidModel(place, "1 to 5", grade + "");
    }
  }

  private static <T> List<T> some(String place, List<T> list) {
    List<T> out = list == null ? List.of() : List.copyOf(list);
    if (out.size() > MAX_ENTRIES || Set.copyOf(out).size() < out.size()) {
      throw new InvalidModel(
          place,
          "at most " + MAX_ENTRIES + " entries, each once",
          out.size() > MAX_ENTRIES ? out.size() + "" : "one of them twice");
    }
    return out;
  }

  /** The names of its uses, as rules and connections say them: at least one. */
  public List<String> uses() {
    if (features.isEmpty()) {
      return List.of(name);
    }
    List<String> out = new ArrayList<>();
    features.forEach(feature -> out.add(use(feature.name())));
    out.add(use(Feature.OTHER_USE));
    return List.copyOf(out);
  }

  private String use(String feature) {
    return name + ": " + feature;
  }
}
