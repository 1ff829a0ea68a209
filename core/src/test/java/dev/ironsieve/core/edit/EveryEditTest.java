package dev.ironsieve.core.edit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.ironsieve.core.model.AddressItem;
import dev.ironsieve.core.model.AddressObject;
import dev.ironsieve.core.model.Breadth;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.Feed;
import dev.ironsieve.core.model.FeedKind;
import dev.ironsieve.core.model.FeedSet;
import dev.ironsieve.core.model.GatewaySettings;
import dev.ironsieve.core.model.InvalidModel;
import dev.ironsieve.core.model.Notice;
import dev.ironsieve.core.model.ObjectKind;
import dev.ironsieve.core.model.Rate;
import dev.ironsieve.core.model.RatePlan;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.SavedCheck;
import dev.ironsieve.core.model.Section;
import dev.ironsieve.core.model.ServiceItem;
import dev.ironsieve.core.model.ServiceObject;
import dev.ironsieve.core.model.TermObject;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.model.Vocabulary;
import dev.ironsieve.core.model.Zone;
import dev.ironsieve.core.rulebase.CommonRules;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.sets.AddressRange;
import dev.ironsieve.core.sets.AddressSet;
import dev.ironsieve.core.sets.IntSet;
import java.time.ZoneId;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.DynamicTest;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestFactory;

/** Every kind of edit is undone by its inverse, and lists the parts that it touches. */
class EveryEditTest {
  private static Zone zone(String name) {
    return new Zone(name, List.of(AddressRange.parse("10.0.0.0/24")), "");
  }

  private static AddressObject address(String name) {
    return new AddressObject(name, List.of(AddressItem.parse("10.0.0.1")), "");
  }

  private static ServiceObject service(String name) {
    return new ServiceObject(name, List.of(ServiceItem.parse("tcp/443")), "");
  }

  private static TermObject terms(ObjectKind kind, String name) {
    String member =
        switch (kind) {
          case HOST_LIST -> "www.quay.example";
          case SCHEDULE -> "daily 10:00-11:00";
          default -> "managed";
        };
    return new TermObject(kind, name, List.of(member), "");
  }

  private static RatePlan plan(String name) {
    return new RatePlan(name, Rate.parse("1 Mbit/s"), null, RatePlan.Counted.ALL_RULES, null, "");
  }

  private static Vocabulary people(String edition) {
    return new Vocabulary(
        Coordinate.PERSON,
        edition,
        List.of("ann", "ben"),
        List.of(new Vocabulary.Term("crew", IntSet.of(0))));
  }

  private static Feed feed(String name, String edition) {
    AddressSet some = AddressSet.of(List.of(AddressRange.parse("10.0.0.9")));
    return new Feed(name, FeedKind.ADDRESSES, edition, List.of(new FeedSet.Addresses(name, some)));
  }

  private static Rule rule(String id) {
    return Rule.matchingAll(id, "rule " + id, Verdict.ALLOW)
        .asking(Map.of(Coordinate.PERSON, Criterion.of("crew")));
  }

  private static SavedCheck check(String name) {
    return new SavedCheck(
        name, "from in south tcp/443", Verdict.ALLOW, null, false, "Ways in", List.of("daily"));
  }

  /** One of everything; the last of each list is used by nobody. */
  private static final Rulebase BASE =
      new Rulebase(
              "base",
              List.of(zone("north"), zone("south")),
              List.of(address("first"), address("last")),
              List.of(service("web"), service("mail")),
              List.of(
                  terms(ObjectKind.HOST_LIST, "hosts"),
                  terms(ObjectKind.SCHEDULE, "hours"),
                  terms(ObjectKind.DEVICE_STATE, "ours")),
              List.of(people("day 1")),
              List.of(feed("watched", "1")),
              new GatewaySettings(
                  List.of(plan("slow")),
                  List.of(new Notice("mind", "Mind", "the gap")),
                  Rate.parse("1 Gbit/s")),
              List.of(
                  new Section("a", "A", List.of(rule("a1"), rule("a2"), rule("a3"))),
                  new Section("b", "B", List.of(rule("b1"))),
                  new Section("c", "C", List.of())))
          .withChecks(List.of(check("one"), check("two")));

  private static final Map<Edit, String> EDITS = new LinkedHashMap<>();

  static {
    Place endOfB = new Place.EndOf("b");
    EDITS.put(new Edit.InsertRules(List.of(rule("x"), rule("y")), endOfB), "rule x, rule y");
    EDITS.put(new Edit.ReplaceRules(List.of(rule("a2").enabled(false))), "rule a2");
    EDITS.put(new Edit.DeleteRules(List.of("a1", "a3", "b1")), "rule a1, rule a3, rule b1");
    EDITS.put(new Edit.MoveRules(List.of("a3", "a1"), endOfB), "rule a1, rule a3");
    EDITS.put(new Edit.InsertSection("d", "D", "b"), "section d");
    EDITS.put(new Edit.RenameSection("b", "Others"), "section b");
    EDITS.put(new Edit.MoveSection("b", "a"), "section b");
    EDITS.put(new Edit.MoveSection("a", null), "section a");
    EDITS.put(new Edit.DeleteSection("c"), "section c");
    EDITS.put(new Edit.PutZone(new Zone("south", List.of(), "far"), "south"), "zone south");
    EDITS.put(new Edit.PutZone(zone("west"), null), "zone west");
    EDITS.put(new Edit.PutZone(zone("west"), "South"), "zone south, zone west");
    EDITS.put(new Edit.PutAddress(address("new"), null), "address new");
    EDITS.put(new Edit.PutAddress(address("new"), "last"), "address last, address new");
    EDITS.put(new Edit.PutService(service("new"), null), "service new");
    EDITS.put(new Edit.PutService(service("new"), "mail"), "service mail, service new");
    for (ObjectKind kind : ObjectKind.OF_TERMS) {
      String old = BASE.termObjects(kind).getFirst().name();
      EDITS.put(new Edit.PutTerms(terms(kind, "new"), null), kind.word() + " new");
      EDITS.put(
          new Edit.PutTerms(terms(kind, "new"), old),
          Stream.of(kind.word() + " " + old, kind.word() + " new")
              .sorted()
              .collect(Collectors.joining(", ")));
      EDITS.put(new Edit.DeleteObject(kind, old), kind.word() + " " + old);
    }
    EDITS.put(new Edit.PutRatePlan(plan("new"), null), "rate plan new");
    EDITS.put(new Edit.PutRatePlan(plan("new"), "slow"), "rate plan new, rate plan slow");
    EDITS.put(new Edit.PutNotice(new Notice("new", "N", "n"), null), "notice new");
    EDITS.put(new Edit.PutNotice(new Notice("new", "N", "n"), "mind"), "notice mind, notice new");
    EDITS.put(new Edit.SetLineCapacity(null), "line capacity");
    EDITS.put(new Edit.SetTimeZone(ZoneId.of("Europe/Oslo")), "clock time zone");
    EDITS.put(
        new Edit.SetBreadth(new Breadth(Set.of(Breadth.Dimension.TIMES), 256)),
        "settings too broad");
    EDITS.put(new Edit.PutCheck(check("new"), null), "check new");
    EDITS.put(new Edit.PutCheck(check("new"), "two"), "check new, check two");
    EDITS.put(new Edit.PutCheck(check("new"), null, "Two"), "check new");
    EDITS.put(new Edit.DeleteCheck("one"), "check one");
    EDITS.put(new Edit.DeleteCheck("two"), "check two");
    EDITS.put(new Edit.DeleteObject(ObjectKind.ZONE, "south"), "zone south");
    EDITS.put(new Edit.DeleteObject(ObjectKind.ADDRESS, "LAST"), "address last");
    EDITS.put(new Edit.DeleteObject(ObjectKind.SERVICE, "mail"), "service mail");
    EDITS.put(new Edit.DeleteObject(ObjectKind.RATE_PLAN, "slow"), "rate plan slow");
    EDITS.put(new Edit.DeleteObject(ObjectKind.NOTICE, "mind"), "notice mind");
    EDITS.put(new Edit.PutVocabulary(people("day 2")), "vocabulary person");
    EDITS.put(new Edit.PutFeed(feed("watched", "2")), "feed watched");
    EDITS.put(new Edit.PutFeed(feed("another", "1")), "feed another");
    EDITS.put(new Edit.DeleteFeed("Watched"), "feed watched");
    EDITS.put(
        new Edit.PutCommon(
            new CommonRules(
                "all",
                1,
                List.of(new Section("h", "H", List.of(rule("h1")))),
                List.of(),
                List.of(),
                List.of(),
                List.of(),
                List.of(),
                List.of(),
                List.of(),
                null)),
        "common rules, rule h1, section h");
    EDITS.put(
        new Edit.Restore(
            "revision 1",
            new Edit.Batch(List.of(new Edit.RenameSection("a", "All"), new Edit.DeleteCheck("two")))
                .apply(BASE)),
        "check two, section a");
    EDITS.put(
        new Edit.Batch(
            List.of(
                new Edit.DeleteRules(List.of("b1")),
                new Edit.DeleteSection("b"),
                new Edit.RenameSection("a", "All"))),
        "rule b1, section a, section b");
  }

  @TestFactory
  List<DynamicTest> isTakenBackAndSaysWhatItTouches() {
    assertThat(EDITS.keySet().stream().map(Object::getClass).collect(Collectors.toSet()))
        .as("every kind but the last vocabulary's deletion")
        .containsAll(
            Arrays.stream(Edit.class.getPermittedSubclasses())
                .filter(kind -> kind != Edit.DeleteVocabulary.class)
                .collect(Collectors.toSet()));
    return EDITS.entrySet().stream()
        .map(
            entry ->
                DynamicTest.dynamicTest(
                    entry.getKey().toString(), () -> check(entry.getKey(), entry.getValue())))
        .toList();
  }

  private static void check(Edit edit, String touches) {
    Rulebase after = edit.apply(BASE);
    assertThat(after).isNotEqualTo(BASE);
    Edit inverse = edit.inverse(BASE).orElseThrow();
    assertThat(inverse.apply(after)).isEqualTo(BASE);
    assertThat(inverse.apply(after).checks()).isEqualTo(BASE.checks());
    // And the inverse of the inverse is as good as the edit.
    assertThat(inverse.inverse(after).orElseThrow().apply(BASE)).isEqualTo(after);
    Set<Touched> touched = edit.touched(BASE);
    assertThat(
            touched.stream()
                .map(one -> one.kind() + " " + one.key())
                .sorted()
                .collect(Collectors.joining(", ")))
        .isEqualTo(touches);
    assertThat(Touched.ruleIds(touched))
        .isEqualTo(
            touched.stream()
                .filter(one -> one.kind().equals("rule"))
                .map(Touched::key)
                .collect(Collectors.toSet()));
  }

  @Test
  void aVocabularyThatIsAskedForIsNotTakenAway() {
    assertThatThrownBy(() -> new Edit.DeleteVocabulary(Coordinate.PERSON).apply(BASE))
        .isInstanceOf(InvalidModel.class);
    Rulebase unasked = new Edit.DeleteRules(List.of("a1", "a2", "a3", "b1")).apply(BASE);
    Edit delete = new Edit.DeleteVocabulary(Coordinate.PERSON);
    Rulebase without = delete.apply(unasked);
    assertThat(without.pinned()).isEmpty();
    assertThat(delete.touched(unasked)).containsExactly(new Touched(Touched.VOCABULARY, "person"));
    assertThat(delete.inverse(unasked).orElseThrow().apply(without)).isEqualTo(unasked);
    Edit put = new Edit.PutVocabulary(people("day 1"));
    assertThat(put.inverse(without)).isEqualTo(Optional.of(delete));
    assertThat(put.apply(without)).isEqualTo(unasked);
  }

  @Test
  void whatIsNotThereIsSaid() {
    for (Edit edit :
        List.of(
            new Edit.DeleteRules(List.of("none")),
            new Edit.RenameSection("none", "n"),
            new Edit.MoveSection("none", null),
            new Edit.MoveSection("a", "none"),
            new Edit.PutZone(zone("new"), "none"),
            new Edit.PutCheck(check("new"), "none"),
            new Edit.DeleteFeed("none"),
            new Edit.DeleteObject(ObjectKind.NOTICE, "none"))) {
      assertThatThrownBy(() -> edit.apply(BASE))
          .isInstanceOfSatisfying(
              MissingTarget.class,
              missing -> {
                assertThat(missing.name()).isEqualTo("none");
                assertThat(missing.kind()).isNotBlank();
              });
    }
  }
}
