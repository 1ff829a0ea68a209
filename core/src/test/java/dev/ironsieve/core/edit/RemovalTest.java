package dev.ironsieve.core.edit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.ironsieve.core.difference.Aspect;
import dev.ironsieve.core.difference.Difference;
import dev.ironsieve.core.difference.Differences;
import dev.ironsieve.core.equivalence.EquivalentObjects;
import dev.ironsieve.core.model.AddressItem;
import dev.ironsieve.core.model.AddressObject;
import dev.ironsieve.core.model.GatewaySettings;
import dev.ironsieve.core.model.InvalidModel;
import dev.ironsieve.core.model.Names;
import dev.ironsieve.core.model.ObjectKind;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Section;
import dev.ironsieve.core.model.ServiceItem;
import dev.ironsieve.core.model.ServiceObject;
import dev.ironsieve.core.model.TermObject;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.twin.Rounds;
import dev.ironsieve.core.twin.SmallWorld;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;

/** Taking objects away that are in use, and finding those that mean the same. */
class RemovalTest {
  private static boolean mentions(Rule rule, ObjectKind kind, String name) {
    return kind.namesIn(rule).stream().anyMatch(n -> Names.key(n).equals(Names.key(name)));
  }

  @Test
  void onlyWhatSpeaksOfItChangesAndAllOfItCanBeTakenBack() {
    int changed = 0;
    int disabled = 0;
    for (int seed = 0; seed < Rounds.of(300); seed++) {
      Rulebase base = new SmallWorld(seed).rulebase(8);
      ObjectKind kind =
          List.of(ObjectKind.ZONE, ObjectKind.ADDRESS, ObjectKind.SERVICE).get(seed % 3);
      String name = List.of("south", "pair", "web").get(seed % 3);
      Removal removal = Removal.of(base, kind, name);
      Rulebase after = removal.edit().apply(base);
      assertThat(after.rules()).noneMatch(rule -> mentions(rule, kind, name));
      Set<String> ids =
          removal.changes().stream().map(c -> c.before().id()).collect(Collectors.toSet());
      for (int i = 0; i < base.rules().size(); i++) {
        Rule was = base.rules().get(i);
        Rule is = after.rules().get(i);
        assertThat(ids.contains(was.id())).as("seed %d", seed).isEqualTo(mentions(was, kind, name));
        if (!ids.contains(was.id())) {
          assertThat(is).isEqualTo(was);
          continue;
        }
        changed++;
        boolean widened =
            (is.fromZones().items().isEmpty() && !was.fromZones().items().isEmpty())
                || (is.toZones().items().isEmpty() && !was.toZones().items().isEmpty())
                || (is.fromAddresses().items().isEmpty() && !was.fromAddresses().items().isEmpty())
                || (is.toAddresses().items().isEmpty() && !was.toAddresses().items().isEmpty())
                || (is.services().items().isEmpty() && !was.services().items().isEmpty());
        assertThat(is.enabled()).as("seed %d", seed).isEqualTo(was.enabled() && !widened);
        disabled += widened ? 1 : 0;
      }
      Rulebase back = removal.edit().inverse(base).orElseThrow().apply(after);
      assertThat(back.rules()).as("seed %d", seed).isEqualTo(base.rules());
      assertThat(back.zones()).hasSameElementsAs(base.zones()); // the last is the one that was gone
      assertThat(back.addresses()).hasSameElementsAs(base.addresses());
      assertThat(back.services()).hasSameElementsAs(base.services());
      Difference difference = Differences.between(base, removal.lessInUse(base), Aspect.VERDICT);
      if (removal.changes().isEmpty() && kind != ObjectKind.ADDRESS) {
        assertThat(difference.parts()).isEmpty();
      }
    }
    assertThat(changed).isGreaterThan(Rounds.least(150));
    assertThat(disabled).isGreaterThan(Rounds.least(50));
  }

  @Test
  void aGroupIsNotLeftEmpty() {
    Rulebase base =
        base(
            List.of(
                new AddressObject("one", List.of(AddressItem.parse("10.0.0.1")), ""),
                new AddressObject("only", List.of(AddressItem.parse("one")), "")),
            List.of());
    assertThatThrownBy(() -> Removal.of(base, ObjectKind.ADDRESS, "One"))
        .isInstanceOf(InvalidModel.class)
        .hasMessageContaining("address \"only\"");
  }

  private static Rulebase base(List<AddressObject> addresses, List<ServiceObject> services) {
    return new Rulebase(
        "b",
        List.of(),
        addresses,
        services,
        List.of(
            new TermObject(ObjectKind.SCHEDULE, "nights", List.of("daily 22:00-06:00"), ""),
            new TermObject(
                ObjectKind.SCHEDULE, "dark", List.of("daily 22:00-24:00", "daily 00:00-06:00"), ""),
            new TermObject(ObjectKind.SCHEDULE, "late", List.of("daily 23:00-06:00"), "")),
        List.of(),
        List.of(),
        GatewaySettings.NONE,
        List.of(new Section("s", "S", List.of())));
  }

  @Test
  void objectsThatMeanTheSameAreFoundHoweverTheySayIt() {
    Rulebase base =
        base(
            List.of(
                new AddressObject("whole", List.of(AddressItem.parse("10.0.0.0/31")), ""),
                new AddressObject(
                    "halves",
                    List.of(AddressItem.parse("10.0.0.0"), AddressItem.parse("10.0.0.1")),
                    ""),
                new AddressObject("other", List.of(AddressItem.parse("10.0.0.2")), "")),
            List.of(
                new ServiceObject("web", List.of(ServiceItem.parse("tcp/80-81")), ""),
                new ServiceObject(
                    "both",
                    List.of(ServiceItem.parse("tcp/81"), ServiceItem.parse("tcp/80")),
                    "")));
    assertThat(EquivalentObjects.in(base))
        .containsExactly(
            new EquivalentObjects.Group(ObjectKind.ADDRESS, List.of("whole", "halves")),
            new EquivalentObjects.Group(ObjectKind.SERVICE, List.of("web", "both")),
            new EquivalentObjects.Group(ObjectKind.SCHEDULE, List.of("nights", "dark")));
  }
}
