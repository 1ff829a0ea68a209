package dev.ironsieve.server.demo;

import dev.ironsieve.core.catalogue.Catalogue;
import dev.ironsieve.core.directory.PersonVocabulary;
import dev.ironsieve.core.model.Feed;
import dev.ironsieve.core.model.Vocabulary;
import dev.ironsieve.core.rulebase.CommonRules;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.formats.Json;
import dev.ironsieve.formats.catalogue.Catalogues;
import dev.ironsieve.formats.document.FromModel;
import dev.ironsieve.formats.document.RulebaseDocument;
import dev.ironsieve.formats.document.ToModel;
import dev.ironsieve.formats.document.VocabularyDocument;
import dev.ironsieve.server.account.Accounts;
import dev.ironsieve.server.account.Role;
import dev.ironsieve.server.catalogue.CatalogueEditions;
import dev.ironsieve.server.directory.Directory;
import dev.ironsieve.server.rulebase.Rulebases;
import io.quarkus.runtime.StartupEvent;
import jakarta.enterprise.event.Observes;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.eclipse.microprofile.config.inject.ConfigProperty;

/** At the start of the demo: its accounts, its data and its stand-ins of outside systems. */
public class DemoStart {
  /** The demo's password for every account. It exists in the demo only. */
  private static final String PASSWORD = "brindlemere-demo";

  private final Accounts accounts;
  private final Rulebases rulebases;
  private final CatalogueEditions editions;
  private final Directory directory;
  private final DemoDirectory demoDirectory;
  private final DemoFeeds demoFeeds;
  private final DemoSignIns demoSignIns;
  private final DemoTap demoTap;
  private final DemoGateways demoGateways;
  private final boolean demo;

  DemoStart(
      Accounts accounts,
      Rulebases rulebases,
      CatalogueEditions editions,
      Directory directory,
      DemoDirectory demoDirectory,
      DemoFeeds demoFeeds,
      DemoSignIns demoSignIns,
      DemoTap demoTap,
      DemoGateways demoGateways,
      @ConfigProperty(name = "iron-sieve.demo") boolean demo) {
    this.accounts = accounts;
    this.rulebases = rulebases;
    this.editions = editions;
    this.directory = directory;
    this.demoDirectory = demoDirectory;
    this.demoFeeds = demoFeeds;
    this.demoSignIns = demoSignIns;
    this.demoTap = demoTap;
    this.demoGateways = demoGateways;
    this.demo = demo;
  }

  void onStart(@Observes StartupEvent event) {
    if (demo) {
      load();
    }
  }

  private void load() {
    accounts.allowDemo(true);
    if (accounts.offerSetup().isPresent()) {
      accounts.addForDemo("ruth.okell", "Ruth Okell", Role.PUBLISHER, PASSWORD);
      accounts.addForDemo("tomas.wren", "Tomas Wren", Role.EDITOR, PASSWORD);
      accounts.addForDemo("ines.calder", "Ines Calder", Role.VIEWER, PASSWORD);
      accounts.addForDemo("odile.marsh", "Odile Marsh", Role.ADMIN, PASSWORD);
    }
    demoDirectory.start();
    if (directory.last(true).isEmpty()) {
      directory.read(null);
    }
    demoFeeds.start();
    if (rulebases.none()) {
      Catalogue catalogue = Catalogues.read(DemoFile.bytes("/demo/catalogue.json"));
      editions.add(catalogue, null);
      editions.add(Catalogues.read(DemoFile.bytes("/demo/catalogue-next.json")), null);
      Vocabulary people = PersonVocabulary.of(directory.latest());
      addRulebases(catalogue, people);
    }
    demoDirectory.later();
    demoFeeds.later();
    demoSignIns.start();
    demoTap.start();
  }

  /** The harbour office, two sites below common rules, and the services of gateways. */
  private void addRulebases(Catalogue catalogue, Vocabulary people) {
    List<VocabularyDocument> vocabularies =
        List.of(FromModel.vocabulary(people), FromModel.vocabulary(catalogue.vocabulary()));
    Map<String, Long> ids = new LinkedHashMap<>();
    Rulebase harbour = read("harbour", vocabularies, demoFeeds.first(), null);
    ids.put("harbour", rulebases.add(harbour, null));
    Rulebase common = read("common", vocabularies, List.of(), null);
    rulebases.add(common, null);
    CommonRules forAll = CommonRules.of(common, 1);
    for (String site : List.of("terminals", "vessels")) {
      ids.put(site, rulebases.add(read(site, vocabularies, List.of(), forAll), null));
    }
    Rulebase services = read("services", vocabularies, List.of(), null);
    ids.put("services", rulebases.add(services, null));
    demoGateways.add(ids);
  }

  /** A rulebase of the demo, with the directory's people, the catalogue and some lists. */
  private static Rulebase read(
      String file, List<VocabularyDocument> vocabularies, List<Feed> lists, CommonRules above) {
    RulebaseDocument own =
        Json.read(DemoFile.bytes("/demo/" + file + ".json"), RulebaseDocument.class);
    return ToModel.rulebase(
        own.with(
            vocabularies,
            lists.stream().map(FromModel::feed).toList(),
            above == null ? null : FromModel.common(above)));
  }
}
