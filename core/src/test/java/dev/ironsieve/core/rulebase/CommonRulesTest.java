package dev.ironsieve.core.rulebase;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.ironsieve.core.analysis.Finding;
import dev.ironsieve.core.analysis.LiveAnalysis;
import dev.ironsieve.core.edit.Edit;
import dev.ironsieve.core.edit.Place;
import dev.ironsieve.core.edit.Touched;
import dev.ironsieve.core.model.AddressItem;
import dev.ironsieve.core.model.AddressObject;
import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.InvalidModel;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.RulebaseKind;
import dev.ironsieve.core.model.Section;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.model.Zone;
import dev.ironsieve.core.repair.Repair;
import dev.ironsieve.core.repair.Repairs;
import dev.ironsieve.core.sets.AddressRange;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;

class CommonRulesTest {
  private static final Zone DESKS =
      new Zone("desks", List.of(AddressRange.parse("10.1.0.0/16")), "");
  private static final Zone OUTSIDE = new Zone("outside", List.of(), "");
  private static final AddressObject NUISANCE = address("Nuisance", "192.0.2.0/24");
  private static final AddressObject OWN = address("Own", "198.51.100.7");

  private final Rulebase common =
      new RulebaseBuilder()
          .name("Everywhere")
          .kind(RulebaseKind.COMMON)
          .zones(List.of(DESKS, OUTSIDE))
          .addresses(List.of(NUISANCE))
          .sections(
              List.of(
                  new Section("h", "Head", List.of(to("stop", "Nuisance", Verdict.DROP))),
                  new Section("t", "Tail", List.of(any("rest", Verdict.REJECT)), true)))
          .build();

  private final Rulebase local =
      new RulebaseBuilder()
          .name("Pier")
          .zones(List.of(DESKS, OUTSIDE))
          .addresses(List.of(OWN))
          .sections(
              List.of(
                  new Section(
                      "s",
                      "Pier",
                      List.of(
                          to("web", "Own", Verdict.ALLOW), to("late", "Nuisance", Verdict.ALLOW)))))
          .under(CommonRules.of(common, 3))
          .build();

  private static AddressObject address(String name, String members) {
    return new AddressObject(name, List.of(AddressItem.parse(members)), "");
  }

  private static Rule to(String id, String address, Verdict verdict) {
    Criterion<AddressItem> there = Criterion.of(AddressItem.parse(address));
    return Rule.matchingAll(id, id, verdict).edit().to(Criterion.any(), there).build();
  }

  private static Rule any(String id, Verdict verdict) {
    return Rule.matchingAll(id, id, verdict);
  }

  private static List<String> ids(Rulebase rulebase) {
    return rulebase.rules().stream().map(Rule::id).toList();
  }

  @Test
  void commonRulesStandAboveAndBelowTheLocalOnes() {
    assertThat(ids(local)).containsExactly("stop", "web", "late", "rest");
    assertThat(local.sections())
        .extracting(local::originOf)
        .first()
        .isEqualTo(Optional.of("Everywhere"));
    assertThat(local.own().sections()).extracting(Section::id).containsExactly("s");
    assertThat(local.own().addresses()).containsExactly(OWN);
    assertThat(local.own().zones()).isEmpty(); // equal to those of the common rulebase
  }

  @Test
  void theWholeOrderIsAnalysed() {
    LiveAnalysis analysis = new LiveAnalysis(local);
    assertThat(analysis.findings("late"))
        .anySatisfy(
            finding -> {
              assertThat(finding.kind()).isEqualTo(Finding.Kind.SHADOWED);
              assertThat(finding.causes()).containsExactly("stop");
            });
  }

  @Test
  void repairsChangeOwnRulesOnly() {
    LiveAnalysis analysis = new LiveAnalysis(local);
    Finding shadowed =
        analysis.findings("late").stream()
            .filter(finding -> finding.kind() == Finding.Kind.SHADOWED)
            .findFirst()
            .orElseThrow();
    assertThat(Repairs.of(shadowed, analysis))
        .extracting(Repair::edit)
        .containsExactly(new Edit.DeleteRules(List.of("late"))); // and none moves it above "stop"
  }

  @Test
  void whatIsCommonIsNotChangedBelow() {
    List<Edit> edits =
        List.of(
            new Edit.DeleteRules(List.of("stop")),
            new Edit.ReplaceRules(List.of(to("stop", "Nuisance", Verdict.ALLOW))),
            new Edit.MoveRules(List.of("stop"), new Place.Below("web")),
            new Edit.InsertRules(List.of(any("new", Verdict.ALLOW)), new Place.Above("rest")),
            new Edit.RenameSection("t", "Other"),
            new Edit.PutAddress(address("Nuisance", "192.0.2.9"), "Nuisance"),
            new Edit.InsertSection("x", "X", "h"));
    for (Edit edit : edits) {
      assertThatThrownBy(() -> edit.apply(local))
          .as(edit.toString())
          .isInstanceOf(InvalidModel.class)
          .hasMessageContaining("common rulebase \"Everywhere\"");
    }
  }

  @Test
  void aSectionAtTheEndStandsAboveTheTailRules() {
    Rulebase after = new Edit.InsertSection("x", "X", null).apply(local);
    assertThat(after.sections()).extracting(Section::id).containsExactly("h", "s", "x", "t");
    Rulebase inCommon = new Edit.InsertSection("x", "X", null).apply(common);
    assertThat(inCommon.sections()).extracting(Section::id).containsExactly("h", "x", "t");
    Rulebase behind = new Edit.InsertSection("x", "X", null, true).apply(common);
    assertThat(behind.sections()).extracting(Section::id).containsExactly("h", "t", "x");
    Edit back =
        new Edit.DeleteSection("t")
            .inverse(new Edit.DeleteRules(List.of("rest")).apply(common))
            .orElseThrow();
    assertThat(back).isEqualTo(new Edit.InsertSection("t", "Tail", null, true));
    assertThatThrownBy(() -> new Edit.InsertSection("x", "X", null, true).apply(local))
        .hasMessageContaining("in a common rulebase only");
  }

  @Test
  void anotherRevisionComesAsOneEditThatCanBeUndone() {
    Rulebase next = new Edit.DeleteRules(List.of("rest")).apply(common);
    Edit edit = new Edit.PutCommon(CommonRules.of(next, 4));
    Rulebase after = edit.apply(local);
    assertThat(ids(after)).containsExactly("stop", "web", "late");
    assertThat(Touched.ruleIds(edit.touched(local))).contains("rest");
    assertThat(edit.inverse(local).orElseThrow().apply(after)).isEqualTo(local);
    assertThatThrownBy(() -> new Edit.PutCommon(null).apply(local))
        .hasMessageContaining("Nuisance"); // the local rule "late" uses it
  }

  @Test
  void levelsStandAroundEachOther() {
    Rulebase top =
        new RulebaseBuilder()
            .name("Top")
            .kind(RulebaseKind.COMMON)
            .sections(
                List.of(
                    new Section("a", "A", List.of(any("first", Verdict.DROP))),
                    new Section("z", "Z", List.of(any("last", Verdict.DROP)), true)))
            .build();
    Rulebase middle = common.under(CommonRules.of(top, 1));
    Rulebase whole = local.under(CommonRules.of(middle, 4));
    assertThat(ids(whole)).containsExactly("first", "stop", "web", "late", "rest", "last");
    assertThat(whole.sections())
        .extracting(section -> whole.originOf(section).orElse("-"))
        .containsExactly("Top", "Everywhere", "-", "Everywhere", "Top");
    assertThat(middle.own().sections()).extracting(Section::id).containsExactly("h", "t");
    assertThatThrownBy(() -> top.under(CommonRules.of(middle, 1))).isInstanceOf(InvalidModel.class);
    assertThatThrownBy(() -> CommonRules.of(local, 1)).hasMessageContaining("a common rulebase");
  }

  @Test
  void withoutOriginsTheRulesAreTheSameAndMayBeChanged() {
    Rulebase alone = local.withoutOrigins();
    assertThat(alone.rules()).isEqualTo(local.rules());
    assertThat(ids(new Edit.DeleteRules(List.of("stop")).apply(alone)))
        .containsExactly("web", "late", "rest");
  }

  @Test
  void goingBackKeepsTheCommonRules() {
    Rulebase alone =
        local.under(CommonRules.of(new Edit.DeleteRules(List.of("rest")).apply(common), 4));
    Rulebase back = new Edit.Restore("revision 1", local).apply(alone);
    assertThat(back).isEqualTo(alone);
  }
}
