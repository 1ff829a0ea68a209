package dev.ironsieve.server.draft;

import dev.ironsieve.core.bandwidth.GuaranteedBandwidth;
import dev.ironsieve.core.model.Rate;
import dev.ironsieve.core.rulebase.Rulebase;
import java.util.List;
import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * The sum of the floors of all rate plans.
 *
 * @param total such as {@code 80 Mbit/s}
 * @param lineCapacity nothing if nobody said it
 * @param share the total as a share of the capacity; nothing if that is not known
 */
public record FloorSum(
    @Schema(required = true) List<FloorShare> plans,
    @Schema(required = true) String total,
    String lineCapacity,
    Double share) {
  static FloorSum of(Rulebase base, GuaranteedBandwidth floors) {
    Rate capacity = base.gatewaySettings().lineCapacity();
    return new FloorSum(
        floors.plans().stream()
            .map(
                kept ->
                    new FloorShare(
                        kept.plan().name(), kept.rules(), kept.times(), Rate.text(kept.total())))
            .toList(),
        Rate.text(floors.total()),
        capacity == null ? null : capacity.toString(),
        capacity == null ? null : (double) floors.total() / capacity.bits());
  }
}
