package dev.ironsieve.core.catalogue;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.ironsieve.core.edition.EditionChange;
import dev.ironsieve.core.edition.RuleChange;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.InvalidModel;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.ServiceItem;
import dev.ironsieve.core.model.ServiceLiteral;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.model.Vocabulary;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;

class CatalogueTest {
  private static final Application GULLWIRE =
      application("Gullwire", "chat", 3, List.of("cloud"), "view", "post");
  private static final Application TERN = application("Tern", "games", 5, List.of());

  private static Application application(
      String name, String category, int risk, List<String> tags, String... features) {
    return new Application(
        name,
        "What it is.",
        category,
        tags,
        risk,
        2,
        List.of(ServiceLiteral.parse("tcp/443")),
        List.of("*." + name.toLowerCase() + ".example"),
        List.of(),
        List.of(),
        List.of(features).stream().map(feature -> new Feature(feature, false)).toList(),
        List.of());
  }

  private static Application needing(Application application, String... needs) {
    return new Application(
        application.name(),
        application.summary(),
        application.category(),
        application.tags(),
        application.risk(),
        application.usefulness(),
        application.ports(),
        application.hosts(),
        List.of(needs),
        application.carries(),
        application.features(),
        application.signatures());
  }

  private static List<String> members(Vocabulary vocabulary, String name) {
    List<String> out = new ArrayList<>();
    vocabulary.meanings().get(name).forEach(number -> out.add(vocabulary.values().get(number)));
    return out;
  }

  @Test
  void rulesCanSayUsesApplicationsCategoriesTagsAndRisks() {
    Vocabulary vocabulary = new Catalogue("e1", List.of(TERN, GULLWIRE)).vocabulary();
    assertThat(vocabulary.values())
        .containsExactly(
            "unidentified", "Gullwire: view", "Gullwire: post", "Gullwire: other use", "Tern");
    assertThat(vocabulary.terms().stream().map(Vocabulary.Term::name).collect(Collectors.toSet()))
        .containsExactlyInAnyOrder(
            "Gullwire",
            "category chat",
            "category games",
            "tag cloud",
            "risk 3",
            "risk 5",
            "risk 2 or more",
            "risk 3 or more",
            "risk 4 or more");
    assertThat(members(vocabulary, "gullwire"))
        .containsExactly("Gullwire: view", "Gullwire: post", "Gullwire: other use");
    assertThat(members(vocabulary, "risk 4 or more")).containsExactly("Tern");
    assertThat(members(vocabulary, "risk 2 or more")).hasSize(4);
  }

  @Test
  void anEditionThatContradictsItselfIsRefused() {
    assertThatThrownBy(() -> new Catalogue("e1", List.of(TERN, TERN)))
        .isInstanceOf(InvalidModel.class)
        .hasMessageContaining("\"Tern\" twice");
    assertThatThrownBy(() -> new Catalogue("e1", List.of(needing(TERN, "Skerrymill"))))
        .isInstanceOf(InvalidModel.class)
        .hasMessageContaining("Skerrymill");
    assertThatThrownBy(() -> new Catalogue("e1", List.of(needing(TERN, "Tern"))))
        .isInstanceOf(InvalidModel.class)
        .hasMessageContaining("another application");
    assertThatThrownBy(() -> application("Unidentified", "c", 0, List.of()))
        .isInstanceOf(InvalidModel.class)
        .hasMessageContaining("risk");
    assertThatThrownBy(
            () -> new Catalogue("e1", List.of(application("Unidentified", "c", 1, List.of()))))
        .isInstanceOf(InvalidModel.class);
    assertThatThrownBy(() -> application("Gullwire", "chat", 1, List.of(), "view", "view"))
        .isInstanceOf(InvalidModel.class)
        .hasMessageContaining("twice");
  }

  @Test
  void needsAreFoundWhateverTheirCase() {
    assertThat(new Catalogue("e1", List.of(needing(TERN, "GULLWIRE"), GULLWIRE)).applications())
        .extracting(Application::needs)
        .containsExactly(List.of(), List.of("GULLWIRE"));
  }

  @Test
  void tellsWhatAnotherEditionChanges() {
    Catalogue before = new Catalogue("e1", List.of(TERN, GULLWIRE));
    Catalogue after =
        new Catalogue(
            "e2",
            List.of(
                application("Gullwire", "chat", 4, List.of(), "view", "post", "call"),
                application("Eiderlatch", "games", 2, List.of())));
    EditionChange change = CatalogueChange.between(before, after);
    assertThat(change.added()).containsExactly("Eiderlatch");
    assertThat(change.removed()).containsExactly("Tern");
    assertThat(change.changed())
        .containsOnly(
            Map.entry(
                "Gullwire",
                List.of(
                    "risk from 3 to 4",
                    "tags from cloud to none",
                    "features from view, post to view, post, call")));
    assertThat(CatalogueChange.between(after, after))
        .isEqualTo(new EditionChange(List.of(), List.of(), Map.of()));
  }

  @Test
  void tellsWhichRulesItChanges() {
    Catalogue before = new Catalogue("e1", List.of(TERN, GULLWIRE));
    Catalogue after =
        new Catalogue(
            "e2",
            List.of(
                application("Gullwire", "chat", 3, List.of("cloud"), "view", "post", "call"),
                application("Eiderlatch", "games", 2, List.of())));
    List<Rule> rules =
        List.of(
            asking("r1", Criterion.of("category games")),
            asking("r2", Criterion.of("Gullwire: view")),
            asking("r3", new Criterion<>(List.of("Gullwire"), List.of("Gullwire: post"))),
            asking("r4", Criterion.of("Tern")),
            Rule.matchingAll("r5", "all", Verdict.ALLOW));
    List<RuleChange> changes = RuleChange.of(rules, before.vocabulary(), after.vocabulary());
    assertThat(changes)
        .containsExactly(
            new RuleChange(rules.get(0), List.of("Eiderlatch"), List.of("Tern"), List.of()),
            new RuleChange(rules.get(2), List.of("Gullwire: call"), List.of(), List.of()),
            new RuleChange(rules.get(3), List.of(), List.of("Tern"), List.of("Tern")));
  }

  @Test
  void tellsWhatBecomesUsualToRulesThatAskForUsualPorts() {
    Rule asks = asking("r1", Criterion.of("Tern"));
    Rule usual =
        asks.matching(
            asks.fromZones(),
            asks.fromAddresses(),
            asks.toZones(),
            asks.toAddresses(),
            Criterion.of(ServiceItem.parse("usual ports")));
    Catalogue before = new Catalogue("e1", List.of(listening("Tern", "tcp/443", "tcp/7001")));
    Catalogue after = new Catalogue("e2", List.of(listening("Tern", "tcp/443", "tcp/7002")));
    assertThat(RuleChange.of(List.of(asks, usual), before.vocabulary(), after.vocabulary()))
        .containsExactly(
            new RuleChange(
                usual, List.of("Tern on tcp/7002"), List.of("Tern on tcp/7001"), List.of()));
  }

  private static Application listening(String name, String... ports) {
    return new Application(
        name,
        "Says where it listens.",
        "games",
        List.of(),
        1,
        1,
        Stream.of(ports).map(ServiceLiteral::parse).toList(),
        List.of(),
        List.of(),
        List.of(),
        List.of(),
        List.of());
  }

  private static Rule asking(String id, Criterion<String> applications) {
    return Rule.matchingAll(id, id, Verdict.ALLOW)
        .asking(Map.of(Coordinate.APPLICATION, applications));
  }
}
