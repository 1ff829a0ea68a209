package dev.ironsieve.server.draft;

import dev.ironsieve.core.reach.RuleShares;
import dev.ironsieve.core.ruleindex.RuleIndex;
import java.util.LinkedHashMap;
import java.util.Map;
import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * How much each rule decides, where each kind of connection counts alike.
 *
 * @param samples the number of connections from which that is estimated
 * @param decided of these, how many each rule decides, by its id; the key of the default rule is
 *     empty
 */
public record RuleSharesDocument(
    @Schema(required = true) int samples, @Schema(required = true) Map<String, Integer> decided) {
  static RuleSharesDocument of(RuleShares shares, RuleIndex index) {
    Map<String, Integer> decided = new LinkedHashMap<>();
    for (int position = 0; position <= index.size(); position++) {
      if (shares.decided()[position] > 0) {
        String id = position == index.size() ? "" : index.rule(index.handleAt(position)).id();
        decided.put(id, shares.decided()[position]);
      }
    }
    return new RuleSharesDocument(shares.samples(), decided);
  }
}
