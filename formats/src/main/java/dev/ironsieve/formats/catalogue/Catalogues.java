package dev.ironsieve.formats.catalogue;

import dev.ironsieve.core.catalogue.Application;
import dev.ironsieve.core.catalogue.Catalogue;
import dev.ironsieve.core.catalogue.Feature;
import dev.ironsieve.core.model.ServiceLiteral;
import dev.ironsieve.core.signature.Signature;
import dev.ironsieve.formats.Checked;
import dev.ironsieve.formats.InvalidDocument;
import dev.ironsieve.formats.Json;
import dev.ironsieve.formats.catalogue.CatalogueDocument.ApplicationDocument;
import dev.ironsieve.formats.catalogue.CatalogueDocument.FeatureDocument;
import java.util.ArrayList;
import java.util.List;

/** Reads and writes catalogues. */
public final class Catalogues {
  private Catalogues() {}

  /**
   * Reads one edition.
   *
   * @throws InvalidDocument with the JSON path of the first fault
   */
  public static Catalogue read(byte[] json) {
    return read(Json.read(json, CatalogueDocument.class));
  }

  /**
   * @throws InvalidDocument with the JSON path of the first fault
   */
  public static Catalogue read(CatalogueDocument document) {
    Integer version = document.ironSieveCatalogue();
    if (version == null || version != CatalogueDocument.VERSION) {
      throw new InvalidDocument(
          "$.ironSieveCatalogue",
          CatalogueDocument.VERSION + "",
          version == null ? "nothing" : version + "");
    }
    List<Application> applications = new ArrayList<>();
    List<ApplicationDocument> given = some(document.applications());
    for (int i = 0; i < given.size(); i++) {
      String path = "$.applications[" + i + "]";
      ApplicationDocument application = given.get(i);
      if (application == null) {
        throw new InvalidDocument(path, "an application", "nothing");
      }
      applications.add(Checked.at(path, () -> application(application, path)));
    }
    return Checked.at("$", () -> new Catalogue(document.edition(), applications));
  }

  private static Application application(ApplicationDocument document, String path) {
    List<ServiceLiteral> ports = new ArrayList<>();
    List<String> texts = some(document.ports());
    for (int i = 0; i < texts.size(); i++) {
      ports.add(port(texts.get(i), path + ".ports[" + i + "]"));
    }
    List<Feature> features = new ArrayList<>();
    List<FeatureDocument> given = some(document.features());
    for (int i = 0; i < given.size(); i++) {
      FeatureDocument feature = given.get(i);
      String at = path + ".features[" + i + "]";
      if (feature == null) {
        throw new InvalidDocument(at, "a feature", "nothing");
      }
      features.add(
          Checked.at(
              at, () -> new Feature(feature.name(), Boolean.TRUE.equals(feature.seenSealed()))));
    }
    List<Signature> signatures = new ArrayList<>();
    for (SignatureDocument signature : some(document.signatures())) {
      signatures.add(Signatures.read(signature, path + ".signatures[" + signatures.size() + "]"));
    }
    return new Application(
        document.name(),
        document.summary(),
        document.category(),
        present(document.tags(), path + ".tags"),
        grade(document.risk(), path + ".risk"),
        grade(document.usefulness(), path + ".usefulness"),
        ports,
        present(document.hosts(), path + ".hosts"),
        present(document.needs(), path + ".needs"),
        present(document.carries(), path + ".carries"),
        features,
        signatures);
  }

  private static int grade(Integer grade, String path) {
    if (grade == null) {
      throw new InvalidDocument(path, "1 to 5", "nothing");
    }
    return grade;
  }

  private static ServiceLiteral port(String text, String path) {
    if (text == null) {
      throw new InvalidDocument(path, "a service such as tcp/443", "nothing");
    }
    return Checked.at(path, () -> ServiceLiteral.parse(text));
  }

  private static <T> List<T> some(List<T> list) {
    return list == null ? List.of() : list;
  }

  private static List<String> present(List<String> list, String path) {
    List<String> out = some(list);
    for (int i = 0; i < out.size(); i++) {
      if (out.get(i) == null) {
        throw new InvalidDocument(path + "[" + i + "]", "a text", "nothing");
      }
    }
    return out;
  }

  public static CatalogueDocument document(Catalogue catalogue) {
    return new CatalogueDocument(
        CatalogueDocument.VERSION,
        catalogue.edition(),
        catalogue.applications().stream().map(Catalogues::document).toList());
  }

  public static ApplicationDocument document(Application application) {
    return new ApplicationDocument(
        application.name(),
        application.summary(),
        application.category(),
        application.tags(),
        application.risk(),
        application.usefulness(),
        application.ports().stream().map(ServiceLiteral::toString).toList(),
        application.hosts(),
        application.needs(),
        application.carries(),
        application.features().stream()
            .map(feature -> new FeatureDocument(feature.name(), feature.seenSealed()))
            .toList(),
        application.signatures().isEmpty()
            ? null
            : application.signatures().stream().map(Signatures::write).toList());
  }
}
