package dev.ironsieve.formats.document;

import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.Names;
import dev.ironsieve.core.model.SavedCheck;
import dev.ironsieve.core.model.TermObject;
import dev.ironsieve.core.rulebase.Rulebase;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.function.IntFunction;
import java.util.stream.IntStream;
import java.util.stream.Stream;

/** Documents at every size limit, below it and above it. */
public final class LimitDocuments {
  private LimitDocuments() {}

  /**
   * One size limit.
   *
   * @param most the limit
   * @param document one that has so many
   * @param place where one too many is reported
   */
  public record Limit(String name, int most, IntFunction<RulebaseDocument> document, String place) {
    @Override
    public String toString() {
      return name;
    }
  }

  /** All of them. */
  public static Stream<Limit> limits() {
    return Stream.of(
        new Limit(
            "items of a criterion",
            Criterion.MAX_ITEMS,
            n -> rules(List.of(asking("a", ports(1, n)), asking("b", ports(1, 2)))),
            "$.sections[0].rules[0].services"),
        new Limit(
            "exceptions of a criterion",
            Criterion.MAX_ITEMS,
            n -> rules(List.of(asking("a", new CriterionDocument(null, numbered("tcp/", 1, n))))),
            "$.sections[0].rules[0].services"),
        new Limit(
            "items of two rules that can be merged",
            Criterion.MAX_ITEMS,
            n -> rules(List.of(asking("a", ports(1, n)), asking("b", ports(30_000, n)))),
            "$.sections[0].rules[0].services"),
        new Limit(
            "people of two rules that can be merged",
            Criterion.MAX_ITEMS,
            n -> people(n),
            "$.sections[0].rules[0].terms.person"),
        new Limit(
            "members of an address",
            TermObject.MAX_MEMBERS,
            n -> addresses(List.of(object("a", hosts(n)))),
            "$.addresses[0]"),
        new Limit(
            "networks of a zone",
            TermObject.MAX_MEMBERS,
            n -> document(List.of(object("a", hosts(n))), null, null, List.of(), List.of()),
            "$.zones[0]"),
        new Limit(
            "addresses",
            Rulebase.MAX_OBJECTS,
            n -> addresses(objects(n, List.of("10.0.0.1"))),
            "$"),
        new Limit(
            "services",
            Rulebase.MAX_OBJECTS,
            n -> document(null, null, objects(n, List.of("tcp/1")), List.of(), List.of()),
            "$"),
        new Limit("levels of groups", Rulebase.MAX_DEPTH, n -> addresses(nested(n)), "$"),
        new Limit(
            "letters of a note",
            Names.MAX_NOTE,
            n -> rules(List.of(rule("a", "A", true, null, "n".repeat(n)))),
            "$.sections[0].rules[0]"),
        new Limit(
            "letters of a rule's name",
            Names.MAX_NAME,
            n -> rules(List.of(rule("a", "n".repeat(n), true, null, ""))),
            "$.sections[0].rules[0]"),
        new Limit(
            "rules",
            Rulebase.MAX_RULES,
            n ->
                rules(
                    IntStream.range(0, n)
                        .mapToObj(i -> rule("r" + i, "R", i == 7, null, ""))
                        .toList()),
            "$"),
        new Limit("sections", Rulebase.MAX_SECTIONS, LimitDocuments::sections, "$"),
        new Limit(
            "checks",
            SavedCheck.MOST,
            n ->
                document(
                    null,
                    null,
                    null,
                    numbered("c", 1, n).stream()
                        .map(
                            name ->
                                new CheckDocument(name, "tcp/443", "drop", null, null, null, null))
                        .toList(),
                    List.of(rule("a", "A", true, ports(443, 1), ""))),
            "$"));
  }

  private static RulebaseDocument rules(List<RuleDocument> rules) {
    return document(null, null, null, List.of(), rules);
  }

  private static RulebaseDocument addresses(List<ObjectDocument> addresses) {
    CriterionDocument last = new CriterionDocument(List.of(addresses.getLast().name()), null);
    RuleDocument rule =
        new RuleDocument(
            "a", "A", true, null, last, null, null, null, null, "allow", null, null, null, null,
            null, "", null, null, null, null, null, null, null);
    return document(null, addresses, null, List.of(), List.of(rule));
  }

  private static RulebaseDocument people(int n) {
    VocabularyDocument people =
        new VocabularyDocument("person", "1", numbered("p", 1, 12_000), List.of(), List.of());
    List<RuleDocument> rules = new ArrayList<>();
    for (int first : new int[] {1, 6000}) {
      CriterionDocument some = new CriterionDocument(numbered("p", first, n), null);
      rules.add(
          new RuleDocument(
              "r" + first,
              "R",
              true,
              null,
              null,
              null,
              null,
              null,
              Map.of("person", some),
              "allow",
              null,
              null,
              null,
              null,
              null,
              "",
              null,
              null,
              null,
              null,
              null,
              null,
              null));
    }
    return document(null, null, null, List.of(), rules, List.of(people));
  }

  private static RulebaseDocument sections(int n) {
    List<SectionDocument> sections =
        IntStream.range(0, n)
            .mapToObj(i -> new SectionDocument("s" + i, "S", List.<RuleDocument>of(), null))
            .toList();
    return new RulebaseDocument(
        1, "Limits", null, null, null, null, null, null, null, null, null, null, null, null, null,
        null, null, null, sections);
  }

  private static RulebaseDocument document(
      List<ObjectDocument> zones,
      List<ObjectDocument> addresses,
      List<ObjectDocument> services,
      List<CheckDocument> checks,
      List<RuleDocument> rules) {
    return document(zones, addresses, services, checks, rules, null);
  }

  private static RulebaseDocument document(
      List<ObjectDocument> zones,
      List<ObjectDocument> addresses,
      List<ObjectDocument> services,
      List<CheckDocument> checks,
      List<RuleDocument> rules,
      List<VocabularyDocument> vocabularies) {
    return new RulebaseDocument(
        1,
        "Limits",
        null,
        null,
        zones,
        addresses,
        services,
        null,
        null,
        null,
        vocabularies,
        null,
        null,
        null,
        null,
        null,
        null,
        checks,
        List.of(new SectionDocument("s", "S", rules, null)));
  }

  private static RuleDocument asking(String id, CriterionDocument services) {
    return rule(id, id, true, services, "");
  }

  private static RuleDocument rule(
      String id, String name, boolean enabled, CriterionDocument services, String note) {
    return new RuleDocument(
        id, name, enabled, null, null, null, null, services, null, "allow", null, null, null, null,
        null, note, null, null, null, null, null, null, null);
  }

  /** So many ports of TCP, no two of them neighbours. */
  private static CriterionDocument ports(int first, int count) {
    return new CriterionDocument(
        IntStream.range(0, count).mapToObj(i -> "tcp/" + (first + 2 * i)).toList(), null);
  }

  private static List<String> numbered(String before, int first, int count) {
    return IntStream.range(first, first + count).mapToObj(i -> before + i).toList();
  }

  private static List<String> hosts(int count) {
    return IntStream.range(0, count)
        .mapToObj(i -> "10.%d.%d.2".formatted(i / 256, i % 256))
        .toList();
  }

  private static ObjectDocument object(String name, List<String> members) {
    return new ObjectDocument(name, members, null);
  }

  private static List<ObjectDocument> objects(int count, List<String> members) {
    return IntStream.range(0, count).mapToObj(i -> object("o" + i, members)).toList();
  }

  /** Each but the first names the one before it twice, so that naming each would never end. */
  private static List<ObjectDocument> nested(int levels) {
    List<ObjectDocument> out = new ArrayList<>(List.of(object("g1", List.of("10.0.0.1"))));
    for (int level = 2; level <= levels; level++) {
      String below = "g" + (level - 1);
      out.add(object("g" + level, List.of(below, below, "10.0." + level + ".0/24")));
    }
    return out;
  }
}
