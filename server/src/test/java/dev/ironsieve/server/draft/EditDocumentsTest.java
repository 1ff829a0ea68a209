package dev.ironsieve.server.draft;

import static org.assertj.core.api.Assertions.assertThat;

import dev.ironsieve.core.edit.Edit;
import dev.ironsieve.core.edit.Place;
import dev.ironsieve.core.model.AddressItem;
import dev.ironsieve.core.model.AddressObject;
import dev.ironsieve.core.model.Breadth;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.Feed;
import dev.ironsieve.core.model.FeedKind;
import dev.ironsieve.core.model.FeedSet;
import dev.ironsieve.core.model.Notice;
import dev.ironsieve.core.model.ObjectKind;
import dev.ironsieve.core.model.Rate;
import dev.ironsieve.core.model.RatePlan;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.RulebaseKind;
import dev.ironsieve.core.model.SavedCheck;
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
import dev.ironsieve.formats.Json;
import java.nio.charset.StandardCharsets;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;

/** Drafts are derived again from stored edits, so every kind has to read back as it was. */
class EditDocumentsTest {
  private static Rule rule(String id) {
    return Rule.matchingAll(id, "Rule " + id, Verdict.CAUTION)
        .matching(
            Criterion.of("pier"),
            new Criterion<>(
                List.of(AddressItem.parse("10.0.0.0/8")),
                List.of(AddressItem.parse("10.1.0.0/16"))),
            Criterion.any(),
            Criterion.any(),
            Criterion.of(ServiceItem.parse("tcp/443")))
        .asking(Map.of(Coordinate.SITE, Criterion.of("*.quay.example")));
  }

  private static List<Edit> samples() {
    Rate slow = Rate.parse("10 Mbit/s");
    RatePlan plan = new RatePlan("plan", slow, null, RatePlan.Counted.EACH_RULE, null, "note");
    Vocabulary people =
        new Vocabulary(
            Coordinate.PERSON,
            "monday",
            List.of("ann", "ben"),
            List.of(new Vocabulary.Term("all", IntSet.range(0, 1))));
    FeedSet watched =
        new FeedSet.Addresses("Sea", AddressSet.of(AddressRange.parse("203.0.113.0/24")));
    List<Edit> all = new ArrayList<>();
    for (Place place :
        List.of(
            new Place.Above("b"),
            new Place.Below("b"),
            new Place.StartOf("s"),
            new Place.EndOf("s"))) {
      all.add(new Edit.InsertRules(List.of(rule("a")), place));
      all.add(new Edit.MoveRules(List.of("a", "c"), place));
    }
    all.add(new Edit.ReplaceRules(List.of(rule("a"), rule("b").enabled(false))));
    all.add(new Edit.DeleteRules(List.of("a", "b")));
    all.add(new Edit.InsertSection("s", "Section", null));
    all.add(new Edit.InsertSection("s", "Section", "t"));
    all.add(new Edit.RenameSection("s", "Other"));
    all.add(new Edit.MoveSection("s", null));
    all.add(new Edit.MoveSection("s", "t"));
    all.add(new Edit.DeleteSection("s"));
    for (String replaces : Arrays.asList(null, "before")) {
      all.add(
          new Edit.PutZone(
              new Zone("pier", List.of(AddressRange.parse("10.0.0.0/8")), "note"), replaces));
      all.add(
          new Edit.PutAddress(
              new AddressObject("boats", List.of(AddressItem.parse("10.2.0.0/16")), "note"),
              replaces));
      all.add(
          new Edit.PutService(
              new ServiceObject("web", List.of(ServiceItem.parse("tcp/80")), ""), replaces));
      all.add(
          new Edit.PutTerms(
              new TermObject(ObjectKind.HOST_LIST, "ours", List.of("*.quay.example"), ""),
              replaces));
      all.add(
          new Edit.PutTerms(
              new TermObject(ObjectKind.SCHEDULE, "day", List.of("weekdays 06:00-22:00"), "n"),
              replaces));
      all.add(
          new Edit.PutTerms(
              new TermObject(ObjectKind.DEVICE_STATE, "fit", List.of("managed"), ""), replaces));
      all.add(new Edit.PutRatePlan(plan, replaces));
      all.add(new Edit.PutNotice(new Notice("mind", "Mind", "The gap"), replaces));
      all.add(
          new Edit.PutCheck(new SavedCheck("in", "tcp/443", Verdict.ALLOW, null), replaces, null));
    }
    all.add(new Edit.PutCheck(new SavedCheck("in", "tcp/443", Verdict.DROP, "a"), null, "another"));
    all.add(new Edit.SetLineCapacity(slow));
    all.add(new Edit.SetLineCapacity(null));
    all.add(new Edit.SetTimeZone(ZoneId.of("Europe/Oslo")));
    all.add(new Edit.SetBreadth(new Breadth(Set.of(Breadth.Dimension.PEOPLE), 256)));
    all.add(new Edit.DeleteCheck("in"));
    for (ObjectKind kind : ObjectKind.values()) {
      all.add(new Edit.DeleteObject(kind, "gone"));
    }
    all.add(new Edit.PutVocabulary(people));
    all.add(new Edit.DeleteVocabulary(Coordinate.PERSON));
    all.add(new Edit.PutFeed(new Feed("Sea", FeedKind.ADDRESSES, "monday", List.of(watched))));
    all.add(new Edit.DeleteFeed("Sea"));
    all.add(new Edit.InsertSection("t", "Tail", null, true));
    all.add(new Edit.PutCommon(null));
    all.add(
        new Edit.PutCommon(CommonRules.of(Rulebase.empty("All sites", RulebaseKind.COMMON), 3)));
    all.add(new Edit.Restore("revision 7", Rulebase.empty("Harbour")));
    all.add(
        new Edit.Batch(List.of(new Edit.DeleteRules(List.of("a")), new Edit.DeleteCheck("in"))));
    return all;
  }

  @Test
  void everyKindOfEditReadsBackAsItWas() {
    for (Edit edit : samples()) {
      String json = Json.write(EditDocuments.write(edit));
      EditDocument document = Json.read(json.getBytes(StandardCharsets.UTF_8), EditDocument.class);
      assertThat(EditDocuments.read(document, "$")).as(json).isEqualTo(edit);
    }
  }

  @Test
  void theSamplesHaveEveryKind() {
    assertThat(samples().stream().map(Object::getClass).collect(Collectors.toSet()))
        .containsExactlyInAnyOrder(Edit.class.getPermittedSubclasses());
  }
}
