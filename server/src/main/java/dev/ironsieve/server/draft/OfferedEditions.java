package dev.ironsieve.server.draft;

import dev.ironsieve.core.directory.PersonVocabulary;
import dev.ironsieve.core.edit.Edit;
import dev.ironsieve.core.model.Vocabulary;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.server.catalogue.CatalogueEditions;
import dev.ironsieve.server.directory.Directory;
import dev.ironsieve.server.feed.FeedEditions;
import dev.ironsieve.server.refusal.Refusal;
import jakarta.enterprise.context.ApplicationScoped;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * The editions of catalogue, directory and feeds that the server offers: a new rulebase gets the
 * newest, and edits that bring another than an offered one are refused.
 */
@ApplicationScoped
public class OfferedEditions {
  private final CatalogueEditions editions;
  private final Directory directory;
  private final FeedEditions feeds;

  OfferedEditions(CatalogueEditions editions, Directory directory, FeedEditions feeds) {
    this.editions = editions;
    this.directory = directory;
    this.feeds = feeds;
  }

  /** A rulebase with the newest edition of everything that comes in editions. */
  public Rulebase withNewest(Rulebase rulebase) {
    Rulebase out = rulebase;
    List<Edit> edits = new ArrayList<>();
    editions.newest().ifPresent(one -> edits.add(new Edit.PutVocabulary(one.vocabulary())));
    directory
        .newest()
        .ifPresent(one -> edits.add(new Edit.PutVocabulary(PersonVocabulary.of(one))));
    feeds.newestOffered().forEach(feed -> edits.add(new Edit.PutFeed(feed)));
    for (Edit edit : edits) {
      out = edit.apply(out);
    }
    return out;
  }

  /**
   * @throws Refusal.Invalid if the edit brings an edition of a catalogue, directory or feed that is
   *     not offered, or whose content is another; 404 or 409 if a feed's edition is not there or
   *     waits
   */
  void check(Edit edit) {
    switch (edit) {
      case Edit.Batch batch -> batch.edits().forEach(this::check);
      case Edit.PutFeed put -> {
        if (!feeds.offered(put.feed().name(), put.feed().edition()).equals(put.feed())) {
          throw notOffered(put.feed().edition());
        }
      }
      case Edit.PutVocabulary put -> {
        if (!offered(put.vocabulary()).equals(Optional.of(put.vocabulary()))) {
          throw notOffered(put.vocabulary().edition());
        }
      }
      case Edit.PutCommon put ->
          throw new Refusal.Invalid(
              "$.edit.kind", "another kind: choose a common rulebase instead", "putCommon");
      case Edit.Restore restore ->
          throw new Refusal.Invalid(
              "$.edit.kind",
              "another kind: restore a revision or a named state instead",
              "restore");
      default -> {}
    }
  }

  private Optional<Vocabulary> offered(Vocabulary wanted) {
    return switch (wanted.coordinate()) {
      case APPLICATION -> editions.known(wanted.edition()).map(known -> known.vocabulary());
      case PERSON -> directory.known(wanted.edition()).map(PersonVocabulary::of);
      case DEVICE, SITE, FILE_KIND, TIME -> Optional.empty();
    };
  }

  private static Refusal notOffered(String edition) {
    return new Refusal.Invalid("$.edit", "an edition as the server offers it", '"' + edition + '"');
  }
}
