package dev.ironsieve.server.draft;

import dev.ironsieve.core.catalogue.Catalogue;
import dev.ironsieve.core.catalogue.CatalogueChange;
import dev.ironsieve.core.directory.PersonVocabulary;
import dev.ironsieve.core.directory.Snapshot;
import dev.ironsieve.core.directory.SnapshotChange;
import dev.ironsieve.core.edit.Edit;
import dev.ironsieve.core.edition.EditionChange;
import dev.ironsieve.core.model.Coordinate;
import dev.ironsieve.core.model.Vocabulary;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.formats.document.ToModel;
import dev.ironsieve.server.account.Role;
import dev.ironsieve.server.capture.CaptureMemory;
import dev.ironsieve.server.catalogue.CatalogueEditions;
import dev.ironsieve.server.directory.Directory;
import dev.ironsieve.server.refusal.Refusal;
import io.quarkus.security.identity.SecurityIdentity;
import jakarta.annotation.security.RolesAllowed;
import jakarta.ws.rs.BeanParam;
import jakarta.ws.rs.GET;
import jakarta.ws.rs.PUT;
import jakarta.ws.rs.Path;
import jakarta.ws.rs.core.Context;
import java.util.List;
import java.util.Map;
import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * The editions that one rulebase's draft has: of the catalogue, by the coordinate {@code
 * application}, and of the directory, by {@code person}.
 */
@Path("/api/rulebases/{rulebase}/draft/editions/{coordinate}/{edition}")
@RolesAllowed(Role.MAY_VIEW)
public class DraftEditionResource {
  private static final EditionChange NOTHING = new EditionChange(List.of(), List.of(), Map.of());

  private final Drafts drafts;
  private final DraftQuestions questions;
  private final CatalogueEditions editions;
  private final Directory directory;
  private final CaptureMemory captures;

  DraftEditionResource(
      Drafts drafts,
      DraftQuestions questions,
      CatalogueEditions editions,
      Directory directory,
      CaptureMemory captures) {
    this.drafts = drafts;
    this.questions = questions;
    this.editions = editions;
    this.directory = directory;
    this.captures = captures;
  }

  /**
   * @param version of the draft that the person saw
   */
  public record Taking(@Schema(required = true) Long version) {}

  /** What taking an edition would change; nothing is changed. */
  @GET
  public EditionEffect effect(long rulebase, String coordinate, String edition) {
    Rulebase base = drafts.rulebase(rulebase);
    Coordinate of = coordinate(coordinate);
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
        ? editions
            .known(before.edition())
            .map(had -> effect.with(captures.reclassified(had, editions.edition(edition))))
            .orElse(effect)
        : effect;
  }

  /** Takes an edition into the draft. */
  @PUT
  @RolesAllowed(Role.MAY_EDIT)
  public ChangeDocument take(
      long rulebase,
      String coordinate,
      String edition,
      Taking body,
      @BeanParam ChangeHeaders headers,
      @Context SecurityIdentity identity) {
    Refusal.requireBody(body);
    if (body.version() == null) {
      throw new Refusal.Invalid("$.version", "a whole number", "nothing");
    }
    Edit edit = new Edit.PutVocabulary(vocabulary(coordinate(coordinate), edition));
    return drafts.edit(rulebase, body.version(), edit, headers.by(identity));
  }

  private static Coordinate coordinate(String word) {
    Coordinate coordinate = ToModel.coordinate(word, "coordinate");
    if (coordinate != Coordinate.APPLICATION && coordinate != Coordinate.PERSON) {
      throw new Refusal.Invalid("coordinate", "application or person", word);
    }
    return coordinate;
  }

  private Vocabulary vocabulary(Coordinate of, String edition) {
    return of == Coordinate.APPLICATION
        ? editions.edition(edition).vocabulary()
        : PersonVocabulary.of(directory.snapshot(edition));
  }

  /** The changes between two editions; empty if the older one is not stored here. */
  private EditionChange change(Coordinate of, Vocabulary before, Vocabulary after) {
    if (of == Coordinate.APPLICATION) {
      Catalogue next = editions.edition(after.edition());
      return editions
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
