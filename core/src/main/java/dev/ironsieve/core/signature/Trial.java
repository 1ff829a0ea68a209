package dev.ironsieve.core.signature;

import dev.ironsieve.core.signature.Recogniser.Named;
import java.util.ArrayList;
import java.util.List;

/**
 * The effect of one more signature on some connections, each given by its place.
 *
 * @param holds those for which it holds
 * @param meant those of these that would be taken for its application, since it is the narrowest
 * @param taken those of these that are taken for something else without it
 */
public record Trial(List<Integer> holds, List<Integer> meant, List<Integer> taken) {
  public Trial {
    holds = List.copyOf(holds);
    meant = List.copyOf(meant);
    taken = List.copyOf(taken);
  }

  /**
   * Tries a signature; O(sights) recognitions.
   *
   * @param known the signatures that there are already
   */
  public static Trial of(List<Named> known, Named own, List<Sight> sights) {
    List<Named> all = new ArrayList<>(known);
    all.add(own);
    Recogniser recogniser = new Recogniser(all);
    List<Integer> holds = new ArrayList<>();
    List<Integer> meant = new ArrayList<>();
    List<Integer> taken = new ArrayList<>();
    for (int i = 0; i < sights.size(); i++) {
      Recognised found = recogniser.recognise(sights.get(i)).orElse(null);
      if (found == null) {
        continue;
      }
      if (found.meant().equals(own)) {
        holds.add(i);
        meant.add(i);
        // Without it, the narrowest of the others is meant.
        if (!found.others().isEmpty() && !found.others().getFirst().use().equals(own.use())) {
          taken.add(i);
        }
      } else if (found.others().contains(own)) {
        holds.add(i);
      }
    }
    return new Trial(holds, meant, taken);
  }
}
