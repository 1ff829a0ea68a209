package dev.ironsieve.server.capture;

import dev.ironsieve.core.signature.Recogniser;
import dev.ironsieve.core.signature.Sight;
import dev.ironsieve.core.signature.Trial;
import dev.ironsieve.formats.capture.CapturedConnection;
import dev.ironsieve.server.catalogue.CatalogueEditions;
import jakarta.enterprise.context.ApplicationScoped;
import java.util.ArrayList;
import java.util.List;

/**
 * Recognises the connections of captures and of the recent log by the signatures of an edition, and
 * tries new signatures on them.
 */
@ApplicationScoped
class CaptureRecognition {
  private final CaptureMemory captures;
  private final RecentLog recent;
  private final CatalogueEditions editions;

  CaptureRecognition(CaptureMemory captures, RecentLog recent, CatalogueEditions editions) {
    this.captures = captures;
    this.recent = recent;
    this.editions = editions;
  }

  /** The recent log, and then the captures. */
  List<CaptureSummary> list() {
    List<CaptureSummary> out = new ArrayList<>();
    out.add(CaptureSummary.of(recent.until(Long.MAX_VALUE, Integer.MAX_VALUE)));
    captures.all().forEach(capture -> out.add(CaptureSummary.of(capture)));
    return out;
  }

  /**
   * The connections of a capture, each with its application.
   *
   * @param id 0 for the recent log
   * @param upTo of the recent log, the number of the newest connection wanted; null for all
   * @param edition whose signatures are used
   */
  RecognisedCapture recognise(long id, Long upTo, String edition) {
    Capture capture = capture(id, upTo);
    Recogniser recogniser = new Recogniser(editions.edition(edition).signatures());
    return new RecognisedCapture(
        capture.id(),
        capture.name(),
        capture.remarks(),
        shown(capture).stream().map(c -> RecognisedConnection.of(c, recogniser)).toList());
  }

  private Capture capture(long id, Long upTo) {
    return id == Capture.RECENT
        ? recent.until(upTo == null ? Long.MAX_VALUE : upTo, RecognisedCapture.MOST_RECENT)
        : captures.capture(id);
  }

  private static List<NumberedConnection> shown(Capture capture) {
    return capture.connections().stream().limit(RecognisedCapture.MOST_ROWS).toList();
  }

  /**
   * The connections of a capture that a signature would recognise, and those of the samples that it
   * would take from their application; nothing is stored.
   *
   * @param id 0 for the recent log
   * @param upTo as in {@link #recognise}
   * @param edition to whose signatures it is added
   */
  SignatureTrialResult attempt(long id, Long upTo, String edition, Recogniser.Named signature) {
    List<Recogniser.Named> known = editions.edition(edition).signatures();
    List<NumberedConnection> connections = shown(capture(id, upTo));
    Trial trial = Trial.of(known, signature, sights(connections));
    return new SignatureTrialResult(
        numbers(connections, trial.holds()),
        numbers(connections, trial.meant()),
        numbers(connections, trial.taken()),
        mistakes(known, signature));
  }

  private List<Mistake> mistakes(List<Recogniser.Named> known, Recogniser.Named signature) {
    List<Mistake> out = new ArrayList<>();
    Recogniser without = new Recogniser(known);
    for (Capture sample : captures.samples()) {
      for (int place : Trial.of(known, signature, sights(sample.connections())).taken()) {
        CapturedConnection taken = sample.connections().get(place).connection();
        String application = without.recognise(taken.sight()).orElseThrow().meant().use();
        out.add(Mistake.of(sample, taken, application));
      }
    }
    return out;
  }

  private static List<Sight> sights(List<NumberedConnection> connections) {
    return connections.stream().map(seen -> seen.connection().sight()).toList();
  }

  private static List<Long> numbers(List<NumberedConnection> connections, List<Integer> places) {
    return places.stream().map(place -> connections.get(place).number()).toList();
  }
}
