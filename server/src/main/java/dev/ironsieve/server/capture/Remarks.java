package dev.ironsieve.server.capture;

import dev.ironsieve.formats.capture.Captures;
import java.util.ArrayList;
import java.util.List;

/** The faults of reading a capture, in sentences. */
final class Remarks {
  private Remarks() {}

  /**
   * @param kept how many of its connections are kept
   */
  static List<String> of(Captures.Summary summary, int kept) {
    List<String> remarks = new ArrayList<>();
    if (summary.cut() != null) {
      remarks.add(summary.cut());
    }
    if (summary.connections() > kept) {
      remarks.add(
          "The first %,d of %,d connections are kept.".formatted(kept, summary.connections()));
    }
    if (summary.passedOver() > 0) {
      remarks.add(
          "%,d packets are no IP, cut short, or later fragments.".formatted(summary.passedOver()));
    }
    summary
        .unknownLinks()
        .forEach(
            (link, packets) ->
                remarks.add("%,d packets are on links of type %d.".formatted(packets, link)));
    return remarks;
  }
}
