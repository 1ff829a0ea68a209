package dev.ironsieve.core.signature;

import dev.ironsieve.core.model.InvalidModel;
import java.util.List;

/**
 * A pattern for connections of an application, or of one of its features: every condition holds.
 *
 * @param feature the feature, or null for the application in general
 * @param conditions at least one; a destination port alone identifies no application of a protocol
 *     that has ports
 */
public record Signature(String feature, List<Condition> conditions) {
  private static final int MAX_CONDITIONS = 20;

  public Signature {
    conditions = List.copyOf(conditions);
    if (conditions.isEmpty() || conditions.size() > MAX_CONDITIONS) {
      throw new InvalidModel(
          "signature", "1 to " + MAX_CONDITIONS + " conditions", conditions.size() + "");
    }
    boolean portOnly =
        conditions.stream()
            .allMatch(
                c ->
                    c instanceof Condition.OnService on
                        && on.services().stream().anyMatch(s -> s.lastDetail() > 0));
    if (portOnly) {
      throw new InvalidModel("signature", "something beside ports", "ports alone");
    }
  }

  /** The sum of the conditions' weights. */
  int weight() {
    return conditions.stream().mapToInt(Condition::weight).sum();
  }
}
