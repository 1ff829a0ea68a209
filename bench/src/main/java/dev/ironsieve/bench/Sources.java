package dev.ironsieve.bench;

import dev.ironsieve.core.analysis.LiveAnalysis;
import dev.ironsieve.core.catalogue.Catalogue;
import dev.ironsieve.core.difference.Aspect;
import dev.ironsieve.core.difference.Difference;
import dev.ironsieve.core.difference.Differences;
import dev.ironsieve.core.edit.Edit;
import dev.ironsieve.core.edit.Place;
import dev.ironsieve.core.edition.FeedChange;
import dev.ironsieve.core.edition.RuleChange;
import dev.ironsieve.core.model.AddressItem;
import dev.ironsieve.core.model.Criterion;
import dev.ironsieve.core.model.Feed;
import dev.ironsieve.core.model.FeedKind;
import dev.ironsieve.core.model.Rule;
import dev.ironsieve.core.model.Verdict;
import dev.ironsieve.core.model.Vocabulary;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.core.text.TermCompletion;
import dev.ironsieve.formats.Json;
import dev.ironsieve.formats.catalogue.CatalogueDocument;
import dev.ironsieve.formats.catalogue.CatalogueDocument.ApplicationDocument;
import dev.ironsieve.formats.catalogue.CatalogueDocument.FeatureDocument;
import dev.ironsieve.formats.catalogue.Catalogues;
import dev.ironsieve.formats.feed.FeedReader;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.stream.IntStream;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;

/** How long what comes from outside keeps a person waiting. */
@Command(
    name = "sources",
    mixinStandardHelpOptions = true,
    description = {
      "Imports an edition of a catalogue and works out its effect on a generated rulebase,",
      "beside analysing that rulebase anew; completes names in a rule, beside searching the",
      "same names for the letters alone; reads a feed and works out the effect of its next",
      "edition, beside splitting it into lines."
    })
final class Sources implements Runnable {
  private static final int RUNS = 5;
  private static final int CATEGORIES = 20;
  private static final int NEW = 50; // one application in so many is new in the later edition
  private static final int OPTIONS = 40; // as many as the web asks for
  private static final double MILLION = 1e6;

  @Option(names = "--applications", description = "In the catalogue; 5,000 if left out.")
  private int applications = 5000;

  @Option(names = "--rules", description = "In the rulebase; 10,000 if left out.")
  private int rules = 10_000;

  @Option(names = "--lines", description = "In the feed; 100,000 if left out.")
  private int lines = 100_000;

  @Override
  public void run() {
    String before = document("2026-11", applications - applications / NEW, new Random(1));
    String after = document("2026-12", applications, new Random(2));
    Vocabulary old = Catalogues.read(bytes(before)).vocabulary();
    complete(old);
    for (Shape shape : List.of(Shape.EASY, Shape.HARD)) {
      edition(shape, old, bytes(after));
    }
    feed();
  }

  private static byte[] bytes(String text) {
    return text.getBytes(StandardCharsets.UTF_8);
  }

  /** The same applications each time, of which some have moved to another category. */
  private static String document(String edition, int count, Random random) {
    List<ApplicationDocument> all = new ArrayList<>();
    for (int i = 0; i < count; i++) {
      int features = i % 4 == 0 ? 1 + i % 5 : 0;
      boolean moved = random.nextInt(100) == 0;
      all.add(
          new ApplicationDocument(
              "App " + i,
              "Made up for a benchmark.",
              "sort " + (moved ? random.nextInt(CATEGORIES) : i % CATEGORIES),
              List.of("tag " + i % 7),
              1 + i % 5,
              1 + i % 3,
              List.of("tcp/" + (i % 3 == 0 ? 443 : 1000 + i % 500)),
              List.of("app" + i + ".example", "*.app" + i + ".example"),
              List.of(),
              List.of(),
              IntStream.range(0, features)
                  .mapToObj(f -> new FeatureDocument("feature " + f, f % 2 == 0))
                  .toList(),
              List.of()));
    }
    return Json.write(new CatalogueDocument(CatalogueDocument.VERSION, edition, all));
  }

  private void edition(Shape shape, Vocabulary old, byte[] document) {
    Rulebase base = new RulebaseGenerator(42, shape, old).rulebase(rules);
    double[] importing = new double[RUNS];
    double[] effect = new double[RUNS];
    double[] anew = new double[RUNS];
    int changed = 0;
    int parts = 0;
    boolean complete = false;
    for (int run = 0; run < RUNS; run++) {
      long start = System.nanoTime();
      Catalogue catalogue = Catalogues.read(document);
      long read = System.nanoTime();
      Vocabulary next = catalogue.vocabulary();
      changed = RuleChange.of(base.rules(), old, next).size();
      List<String> values = next.valuesWith(old);
      Difference difference =
          Differences.between(
              new Edit.PutVocabulary(old.over(values)).apply(base),
              new Edit.PutVocabulary(next.over(values)).apply(base),
              Aspect.VERDICT);
      long done = System.nanoTime();
      parts = difference.parts().size();
      complete = difference.complete();
      new LiveAnalysis(base);
      importing[run] = (read - start) / MILLION;
      effect[run] = (done - read) / MILLION;
      anew[run] = (System.nanoTime() - done) / MILLION;
    }
    System.out.printf(
        "edition of %d applications, %d %s rules: import %s, effect %s (%d rules, %d parts%s),"
            + " %.2f times analysing anew (%s)%n",
        applications,
        rules,
        shape,
        told(importing),
        told(effect),
        changed,
        parts,
        complete ? "" : ", more left",
        median(effect) / median(anew),
        told(anew));
  }

  /** What is typed letter by letter. */
  private void complete(Vocabulary vocabulary) {
    List<String> typed = List.of("a", "app", "app 1", "app 12", "sort", "tag 3", "feature 2", "zz");
    List<Double> times = new ArrayList<>();
    List<Double> scans = new ArrayList<>();
    int found = 0;
    for (int run = 0; run < 10 * RUNS; run++) {
      for (String text : typed) {
        long start = System.nanoTime();
        found += TermCompletion.of(List.of(vocabulary), text, OPTIONS).size();
        long done = System.nanoTime();
        for (String value : vocabulary.values()) {
          found += value.contains(text) ? 1 : 0;
        }
        times.add((done - start) / MILLION);
        scans.add((System.nanoTime() - done) / MILLION);
      }
    }
    double[] all = times.stream().mapToDouble(t -> t).toArray();
    System.out.printf(
        "completion among %d names: %s, %.1f times a search for the letters (%d found)%n",
        vocabulary.values().size() + vocabulary.terms().size(),
        told(all),
        median(all) / median(scans.stream().mapToDouble(t -> t).toArray()),
        found);
  }

  private void feed() {
    Feed old = read("1", addresses(new Random(1)));
    byte[] next = addresses(new Random(2));
    Rule any = Rule.matchingAll("watched", "Watched", Verdict.DROP);
    Rule watched =
        any.matching(
            any.fromZones(),
            Criterion.of(new AddressItem.Named("Watched")),
            any.toZones(),
            any.toAddresses(),
            any.services());
    Rulebase generated = new RulebaseGenerator(42, Shape.EASY).rulebase(rules);
    Rulebase base =
        new Edit.Batch(
                List.of(
                    new Edit.PutFeed(old),
                    new Edit.InsertRules(List.of(watched), new Place.StartOf("s"))))
            .apply(generated);
    double[] reading = new double[RUNS];
    double[] effect = new double[RUNS];
    double[] splitting = new double[RUNS];
    String told = "";
    for (int run = 0; run < RUNS; run++) {
      long start = System.nanoTime();
      Feed feed = read("2", next);
      long read = System.nanoTime();
      FeedChange.Compared compared = FeedChange.compare(base, feed);
      Difference difference =
          Differences.between(compared.before(), compared.after(), Aspect.VERDICT);
      long done = System.nanoTime();
      long count = new String(next, StandardCharsets.UTF_8).lines().count();
      splitting[run] = (System.nanoTime() - done) / MILLION;
      reading[run] = (read - start) / MILLION;
      effect[run] = (done - read) / MILLION;
      told =
          "%d lines, %d rules changed, %d parts%s"
              .formatted(
                  count,
                  compared.rules().size(),
                  difference.parts().size(),
                  difference.complete() ? "" : ", more left");
    }
    System.out.printf(
        "feed (%s): read %s, %.1f times splitting it; effect on %d rules %s%n",
        told, told(reading), median(reading) / median(splitting), rules, told(effect));
    long start = System.nanoTime();
    LiveAnalysis live = new LiveAnalysis(base);
    double whole = (System.nanoTime() - start) / MILLION;
    start = System.nanoTime();
    new LiveAnalysis(generated);
    System.out.printf(
        "analysis with the feed: %.0f ms for %d rules, %.2f times that without it%n",
        whole, live.index().size(), whole * MILLION / (System.nanoTime() - start));
  }

  private Feed read(String edition, byte[] file) {
    return new Feed(
        "Watched",
        FeedKind.ADDRESSES,
        edition,
        FeedReader.read(FeedKind.ADDRESSES, "Watched", file).sets());
  }

  /** Nine of ten are the same each time. */
  private byte[] addresses(Random random) {
    Random same = new Random(0);
    StringBuilder out = new StringBuilder();
    for (int i = 0; i < lines; i++) {
      int shared = same.nextInt();
      int host = random.nextInt(10) == 0 ? random.nextInt() : shared;
      out.append("10.").append(host >>> 24 & 255).append('.').append(host >>> 16 & 255);
      out.append('.').append(host >>> 8 & 255).append(" ; case ").append(i).append('\n');
    }
    return bytes(out.toString());
  }

  private static double median(double[] values) {
    return new Timings(values).median();
  }

  private static Timings told(double[] values) {
    return new Timings(values);
  }
}
