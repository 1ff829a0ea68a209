package dev.ironsieve.core.analysis;

import static org.assertj.core.api.Assertions.assertThat;

import dev.ironsieve.core.model.AddressItem;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.Logging;
import dev.ironsieve.core.model.Opening;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.ServiceItem;
import dev.ironsieve.core.model.Verdict;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;

/** One rule for two neighbours: criterion by criterion, and whatever keeps them apart. */
class MergeableTest {
  /** Zones, addresses and services as words, from and to; the last two are people and devices. */
  private static final List<String> FIRST =
      List.of("quay", "10.1.0.0/16", "office", "10.2.0.0/16", "tcp/443", "crew", "managed");

  private static final List<String> SECOND =
      List.of("shore", "10.3.0.0/16", "depot", "10.4.0.0/16", "udp/53", "guests", "patched");

  private static <T> Criterion<T> criterion(String text, Function<String, T> read) {
    List<T> items = new ArrayList<>();
    List<T> except = new ArrayList<>();
    for (String word : text.isEmpty() ? new String[0] : text.split(" ")) {
      if (word.startsWith("!")) {
        except.add(read.apply(word.substring(1)));
      } else {
        items.add(read.apply(word));
      }
    }
    return new Criterion<>(items, except);
  }

  private static Rule rule(String id, List<String> words) {
    return rule(id, words, Verdict.ALLOW, Opening.SEALED, Logging.END, "slow", "hello");
  }

  private static Rule rule(
      String id,
      List<String> words,
      Verdict verdict,
      Opening opening,
      Logging logging,
      String ratePlan,
      String notice) {
    return new Rule(
        id,
        "Rule " + id,
        id.equals("upper"),
        criterion(words.get(0), word -> word),
        criterion(words.get(1), AddressItem::parse),
        criterion(words.get(2), word -> word),
        criterion(words.get(3), AddressItem::parse),
        criterion(words.get(4), ServiceItem::parse),
        Map.of(
            Coordinate.PERSON, criterion(words.get(5), word -> word),
            Coordinate.DEVICE, criterion(words.get(6), word -> word)),
        verdict,
        opening,
        logging,
        ratePlan,
        notice,
        "");
  }

  private static List<String> with(int place, String word) {
    List<String> out = new ArrayList<>(FIRST);
    out.set(place, word);
    return out;
  }

  @Test
  void anyOneCriterionMayDifferAndGetsTheItemsOfBoth() {
    for (int place = 0; place < FIRST.size(); place++) {
      String both = FIRST.get(place) + " " + SECOND.get(place);
      assertThat(
              Mergeable.merged(rule("upper", FIRST), rule("lower", with(place, SECOND.get(place)))))
          .as(both)
          .contains(rule("upper", with(place, both)));
    }
  }

  @Test
  void anythingAndSomethingIsAnything() {
    for (int place = 0; place < FIRST.size(); place++) {
      Rule wide = rule("upper", with(place, ""));
      assertThat(Mergeable.merged(wide, rule("lower", FIRST))).contains(wide);
      assertThat(Mergeable.merged(rule("upper", FIRST), rule("lower", with(place, ""))))
          .contains(wide);
    }
  }

  @Test
  void exceptionsHaveToBeTheSame() {
    for (int place = 0; place < FIRST.size(); place++) {
      String except = " !" + SECOND.get(place);
      Rule plain = rule("upper", FIRST);
      Rule less = rule("lower", with(place, FIRST.get(place) + except));
      assertThat(Mergeable.merged(plain, less)).as("%d", place).isEmpty();
      String other = place == 1 || place == 3 ? "10.9.0.0/16" : place == 4 ? "udp/9" : "pier";
      Rule lessToo = rule("upper", with(place, other + except));
      assertThat(Mergeable.merged(lessToo, less))
          .as("%d", place)
          .contains(rule("upper", with(place, other + " " + FIRST.get(place) + except)));
    }
  }

  @Test
  void twoCriteriaThatDifferKeepRulesApart() {
    for (int one = 0; one < FIRST.size(); one++) {
      for (int two = 0; two < one; two++) {
        List<String> words = with(one, SECOND.get(one));
        words.set(two, SECOND.get(two));
        assertThat(Mergeable.merged(rule("upper", FIRST), rule("lower", words)))
            .as("%s", words)
            .isEmpty();
      }
    }
    assertThat(Mergeable.merged(rule("upper", FIRST), rule("lower", FIRST)))
        .as("nothing differs: the lower decides nothing")
        .isEmpty();
  }

  @Test
  void whatRulesDoHasToBeTheSame() {
    List<String> words = with(0, "shore");
    Stream.of(
            rule("lower", words, Verdict.DROP, Opening.SEALED, Logging.END, "slow", "hello"),
            rule("lower", words, Verdict.ALLOW, Opening.OPENED, Logging.END, "slow", "hello"),
            rule("lower", words, Verdict.ALLOW, Opening.SEALED, Logging.OFF, "slow", "hello"),
            rule("lower", words, Verdict.ALLOW, Opening.SEALED, Logging.END, "fast", "hello"),
            rule("lower", words, Verdict.ALLOW, Opening.SEALED, Logging.END, "slow", null))
        .forEach(
            lower ->
                assertThat(Mergeable.merged(rule("upper", FIRST), lower))
                    .as("%s", lower)
                    .isEmpty());
  }
}
