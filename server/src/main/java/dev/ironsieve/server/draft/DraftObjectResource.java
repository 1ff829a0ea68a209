package dev.ironsieve.server.draft;

import dev.ironsieve.core.bandwidth.GuaranteedBandwidth;
import dev.ironsieve.core.difference.Aspect;
import dev.ironsieve.core.difference.Difference;
import dev.ironsieve.core.difference.Differences;
import dev.ironsieve.core.edit.Edit;
import dev.ironsieve.core.edit.Removal;
import dev.ironsieve.core.equivalence.EquivalentObjects;
import dev.ironsieve.core.model.ObjectKind;
import dev.ironsieve.core.model.Rate;
import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.formats.document.FromModel;
import dev.ironsieve.formats.document.RatePlanDocument;
import dev.ironsieve.formats.document.RuleDocument;
import dev.ironsieve.formats.document.ToModel;
import dev.ironsieve.server.account.Role;
import dev.ironsieve.server.refusal.Refusal;
import io.quarkus.security.identity.SecurityIdentity;
import jakarta.annotation.security.RolesAllowed;
import jakarta.ws.rs.BeanParam;
import jakarta.ws.rs.DELETE;
import jakarta.ws.rs.GET;
import jakarta.ws.rs.POST;
import jakarta.ws.rs.Path;
import jakarta.ws.rs.QueryParam;
import jakarta.ws.rs.core.Context;
import java.util.Arrays;
import java.util.List;
import org.eclipse.microprofile.openapi.annotations.media.Schema;

/** Objects of a draft: which mean the same, and what taking one away would change. */
@Path("/api/rulebases/{rulebase}/draft/objects")
@RolesAllowed(Role.MAY_VIEW)
public class DraftObjectResource {
  private final Drafts drafts;
  private final DraftQuestions questions;

  DraftObjectResource(Drafts drafts, DraftQuestions questions) {
    this.drafts = drafts;
    this.questions = questions;
  }

  /** Objects of one kind that mean the same, by name. */
  public record AlikeObjects(
      @Schema(required = true) String kind, @Schema(required = true) List<String> names) {}

  /**
   * What taking an object away would change.
   *
   * @param rules each as it is and as it would be
   * @param complete whether these are all verdicts that change
   */
  public record RemovalEffect(
      @Schema(required = true) List<ChangedRule> rules,
      @Schema(required = true) List<EditionEffect.VerdictEffect> verdicts,
      @Schema(required = true) boolean complete) {}

  /** One rule. */
  public record ChangedRule(
      @Schema(required = true) RuleDocument before, @Schema(required = true) RuleDocument after) {}

  /** Every group of objects that mean the same. */
  @GET
  @Path("/alike")
  public List<AlikeObjects> alike(long rulebase) {
    return questions.askRulebase(rulebase, EquivalentObjects::in).stream()
        .map(group -> new AlikeObjects(group.kind().word(), group.names()))
        .toList();
  }

  /**
   * What the floors of the rate plans add up to.
   *
   * @param total such as {@code 80 Mbit/s}
   * @param lineCapacity nothing if nobody said it
   * @param share the total as a share of the capacity; nothing if that is not known
   */
  public record FloorSum(
      @Schema(required = true) List<FloorShare> plans,
      @Schema(required = true) String total,
      String lineCapacity,
      Double share) {}

  /**
   * What one plan keeps.
   *
   * @param rules names of the rules that it is kept for
   * @param times how often its floor is kept
   */
  public record FloorShare(
      @Schema(required = true) String plan,
      @Schema(required = true) List<String> rules,
      @Schema(required = true) long times,
      @Schema(required = true) String total) {}

  @GET
  @Path("/floors")
  public FloorSum floors(long rulebase) {
    return questions.askRulebase(rulebase, DraftObjectResource::sum);
  }

  /**
   * A rate plan before it is saved.
   *
   * @param replaces name of the plan that it would replace; left out for a new one
   */
  public record PlanTried(@Schema(required = true) RatePlanDocument ratePlan, String replaces) {}

  /** What all floors would add up to with a rate plan; nothing is changed. */
  @POST
  @Path("/floors")
  @RolesAllowed(Role.MAY_EDIT)
  public FloorSum floorsWith(long rulebase, PlanTried body) {
    Refusal.requireBody(body);
    if (body.ratePlan() == null) {
      throw new Refusal.Invalid("$.ratePlan", "a rate plan", "nothing");
    }
    Edit put =
        new Edit.PutRatePlan(ToModel.ratePlan(body.ratePlan(), "$.ratePlan"), body.replaces());
    return questions.askRulebase(rulebase, base -> sum(put.apply(base)));
  }

  private static FloorSum sum(Rulebase base) {
    GuaranteedBandwidth floors = GuaranteedBandwidth.of(base);
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

  /** What taking an object away would change; nothing is changed. */
  @GET
  @Path("/{kind}/{name}/removal")
  public RemovalEffect effect(long rulebase, String kind, String name) {
    ObjectKind of = kind(kind);
    return questions.askRulebase(rulebase, base -> effect(base, of, name));
  }

  private static RemovalEffect effect(Rulebase base, ObjectKind kind, String name) {
    Removal removal = Removal.of(base, kind, name);
    removal.edit().apply(base); // which says so if there is no such object
    Difference difference = Differences.between(base, removal.lessInUse(base), Aspect.VERDICT);
    return new RemovalEffect(
        removal.changes().stream()
            .map(
                change ->
                    new ChangedRule(
                        FromModel.rule(change.before()), FromModel.rule(change.after())))
            .toList(),
        EditionEffect.verdicts(difference),
        difference.complete());
  }

  /** Deletes an object, also from the rules and groups that use it. */
  @DELETE
  @Path("/{kind}/{name}")
  @RolesAllowed(Role.MAY_EDIT)
  public ChangeDocument remove(
      long rulebase,
      String kind,
      String name,
      @QueryParam("version") Long version,
      @BeanParam ChangeHeaders headers,
      @Context SecurityIdentity identity) {
    if (version == null) {
      throw new Refusal.Invalid("version", "a whole number", "nothing");
    }
    Removal removal = Removal.of(drafts.rulebase(rulebase), kind(kind), name);
    return drafts.edit(rulebase, version, removal.edit(), headers.by(identity));
  }

  private static ObjectKind kind(String word) {
    return Arrays.stream(ObjectKind.values())
        .filter(kind -> kind.word().equals(word))
        .findFirst()
        .orElseThrow(
            () ->
                new Refusal.Invalid(
                    "kind",
                    "zone, address, service, host list, schedule, rate plan or notice",
                    word));
  }
}
