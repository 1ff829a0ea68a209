package dev.ironsieve.core.edit;

import dev.ironsieve.core.model.AddressItem;
import dev.ironsieve.core.model.AddressObject;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Section;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.twin.SmallWorld;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Random;

/** Edits of every kind that fit a rulebase of a small world. */
public final class RandomEdits {
  private final Random random;
  private final SmallWorld world;
  private int made;

  public RandomEdits(long seed) {
    this(seed, false);
  }

  /**
   * @param withTerms as in {@link SmallWorld}
   */
  public RandomEdits(long seed, boolean withTerms) {
    random = new Random(seed);
    world = new SmallWorld(seed + 1, withTerms);
  }

  public Edit next(Rulebase base) {
    List<Rule> rules = base.rules();
    if (rules.size() < 2) {
      return new Edit.InsertRules(List.of(fresh(), fresh()), new Place.EndOf(section(base).id()));
    }
    return switch (random.nextInt(10)) {
      case 0, 1 -> new Edit.InsertRules(List.of(fresh()), place(base));
      case 2, 3 -> new Edit.ReplaceRules(List.of(world.rule(any(rules).id())));
      case 4 -> new Edit.DeleteRules(some(rules, 2));
      case 5 -> {
        List<String> ids = some(rules, 2);
        Place place = place(base);
        boolean itself =
            (place instanceof Place.Above a && ids.contains(a.ruleId()))
                || (place instanceof Place.Below b && ids.contains(b.ruleId()));
        yield new Edit.MoveRules(ids, itself ? new Place.StartOf(section(base).id()) : place);
      }
      case 6 -> {
        Rule rule = any(rules);
        yield new Edit.ReplaceRules(List.of(rule.enabled(!rule.enabled())));
      }
      case 7 -> {
        String old = base.addresses().getFirst().name();
        String name = random.nextBoolean() ? old : "pair" + made++;
        List<AddressItem> members =
            List.of(AddressItem.parse("10.0.0." + random.nextInt(4)), AddressItem.parse("fd00::"));
        // Named "pair" again at the end, since the small world's rules use it.
        yield new Edit.Batch(
            List.of(
                new Edit.PutAddress(new AddressObject(name, members, ""), old),
                new Edit.PutAddress(new AddressObject("pair", members, "again"), name)));
      }
      case 8 -> {
        Edit insert = new Edit.InsertRules(List.of(fresh()), place(base));
        yield new Edit.Batch(
            List.of(insert, new Edit.RenameSection(section(base).id(), "Renamed " + made++)));
      }
      default ->
          new Edit.InsertSection(
              "s" + made++, "Section", random.nextBoolean() ? null : section(base).id());
    };
  }

  private Rule fresh() {
    return world.rule("n" + made++);
  }

  private Section section(Rulebase base) {
    return base.sections().get(random.nextInt(base.sections().size()));
  }

  private Rule any(List<Rule> rules) {
    return rules.get(random.nextInt(rules.size()));
  }

  private List<String> some(List<Rule> rules, int most) {
    List<String> ids = new ArrayList<>(rules.stream().map(Rule::id).toList());
    Collections.shuffle(ids, random);
    return List.copyOf(ids.subList(0, 1 + random.nextInt(most)));
  }

  private Place place(Rulebase base) {
    String rule = any(base.rules()).id();
    return switch (random.nextInt(4)) {
      case 0 -> new Place.Above(rule);
      case 1 -> new Place.Below(rule);
      case 2 -> new Place.StartOf(section(base).id());
      default -> new Place.EndOf(section(base).id());
    };
  }
}
