package dev.ironsieve.server.draft;

import dev.ironsieve.core.catalogue.Catalogue;
import dev.ironsieve.core.catalogue.CatalogueChange;
import dev.ironsieve.core.directory.PersonVocabulary;
import dev.ironsieve.core.directory.Snapshot;
import dev.ironsieve.core.directory.SnapshotChange;
import dev.ironsieve.core.edit.Edit;
import dev.ironsieve.core.edition.EditionChange;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Feed;
import dev.ironsieve.core.model.Vocabulary;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.server.capture.CaptureMemory;
import dev.ironsieve.server.catalogue.CatalogueEditions;
import dev.ironsieve.server.directory.Directory;
import dev.ironsieve.server.feed.FeedEditions;
import dev.ironsieve.server.refusal.Refusal;
import jakarta.enterprise.context.ApplicationScoped;
import java.util.List;
import java.util.Map;

/**
 * The editions that a draft uses: of the catalogue (coordinate application), of the directory
 * (person) and of feeds. The effect of another edition, and its adoption.
 */
@ApplicationScoped
class DraftEditions {
  private static final EditionChange NOTHING = new EditionChange(List.of(), List.of(), Map.of());

  private final Drafts drafts;
  private final DraftQuestions questions;
  private final CatalogueEditions catalogues;
  private final Directory directory;
  private final FeedEditions feeds;
  private final CaptureMemory captures;

  DraftEditions(
      Drafts drafts,
      DraftQuestions questions,
      CatalogueEditions catalogues,
      Directory directory,
      FeedEditions feeds,
      CaptureMemory captures) {
    this.drafts = drafts;
    this.questions = questions;
    this.catalogues = catalogues;
    this.directory = directory;
    this.feeds = feeds;
    this.captures = captures;
  }

  /** The effect of another edition; nothing is changed. */
  EditionEffect effect(long rulebase, Coordinate of, String edition) {
    Rulebase base = drafts.rulebase(rulebase);
    Vocabulary before =
        base.vocabulary(of)
            .orElseThrow(
                () ->
                    new Refusal.WrongState(
                        "This rulebase has no " + of.word() + " yet; just take an edition."));
    Vocabulary after = vocabulary(of, edition);
    EditionEffect effect =
        questions.askRulebase(
            rulebase, now -> EditionEffect.of(now, change(of, before, after), before, after));
    return of == Coordinate.APPLICATION
        ? catalogues
            .known(before.edition())
            .map(had -> effect.with(captures.reclassified(had, catalogues.edition(edition))))
            .orElse(effect)
        : effect;
  }

  /** The same for an edition of a feed, also one that awaits approval. */
  EditionEffect feedEffect(long rulebase, String feed, String edition) {
    Rulebase base = drafts.rulebase(rulebase);
    Feed next = feeds.known(feed, edition);
    Feed had =
        base.feed(feed)
            .orElseThrow(
                () ->
                    new Refusal.WrongState(
                        "This rulebase has no edition of \"%s\" yet; just take one."
                            .formatted(next.name())));
    return questions.askRulebase(rulebase, now -> EditionEffect.of(now, had, next));
  }

  ChangeDocument adopt(
      long rulebase, long version, Coordinate of, String edition, Drafts.Requester by) {
    Edit edit = new Edit.PutVocabulary(vocabulary(of, edition));
    return drafts.edit(rulebase, version, edit, by);
  }

  ChangeDocument adoptFeed(
      long rulebase, long version, String feed, String edition, Drafts.Requester by) {
    return drafts.edit(rulebase, version, new Edit.PutFeed(feeds.offered(feed, edition)), by);
  }

  private Vocabulary vocabulary(Coordinate of, String edition) {
    return of == Coordinate.APPLICATION
        ? catalogues.edition(edition).vocabulary()
        : PersonVocabulary.of(directory.snapshot(edition));
  }

  /** The changes between two editions; empty if the older one is not stored here. */
  private EditionChange change(Coordinate of, Vocabulary before, Vocabulary after) {
    if (of == Coordinate.APPLICATION) {
      Catalogue next = catalogues.edition(after.edition());
      return catalogues
          .known(before.edition())
          .map(catalogue -> CatalogueChange.between(catalogue, next))
          .orElse(NOTHING);
    }
    Snapshot next = directory.snapshot(after.edition());
    return directory
        .known(before.edition())
        .map(snapshot -> SnapshotChange.between(snapshot, next))
        .orElse(NOTHING);
  }
}
