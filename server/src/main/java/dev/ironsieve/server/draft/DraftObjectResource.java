package dev.ironsieve.server.draft;

import dev.ironsieve.core.edit.Edit;
import dev.ironsieve.core.model.ObjectKind;
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

/** Objects of a draft: those with the same meaning, and the removal of one. */
@Path("/api/rulebases/{rulebase}/draft/objects")
@RolesAllowed(Role.MAY_VIEW)
public class DraftObjectResource {
  private final ObjectQuestions objects;

  DraftObjectResource(ObjectQuestions objects) {
    this.objects = objects;
  }

  /** Every group of objects that mean the same. */
  @GET
  @Path("/alike")
  public List<AlikeObjects> alike(long rulebase) {
    return objects.alike(rulebase);
  }

  /**
   * The objects that hold an address or a service, also through other objects.
   *
   * @param value an address, a prefix, a range, or a service such as {@code tcp/443}
   */
  @GET
  @Path("/holding")
  public List<HoldingObject> holding(long rulebase, @QueryParam("value") String value) {
    return objects.holding(rulebase, Refusal.require(value, "value", "an address or a service"));
  }

  @GET
  @Path("/floors")
  public FloorSum floors(long rulebase) {
    return objects.floors(rulebase);
  }

  /** The sum of all floors with another rate plan; nothing is changed. */
  @POST
  @Path("/floors")
  @RolesAllowed(Role.MAY_EDIT)
  public FloorSum floorsWith(long rulebase, RatePlanTrial body) {
    Refusal.requireBody(body);
    Refusal.require(body.ratePlan(), "$.ratePlan", "a rate plan");
    Edit put =
        new Edit.PutRatePlan(ToModel.ratePlan(body.ratePlan(), "$.ratePlan"), body.replaces());
    return objects.floorsAfter(rulebase, put);
  }

  /** The effect of deleting an object; nothing is changed. */
  @GET
  @Path("/{kind}/{name}/removal")
  public RemovalEffect effect(long rulebase, String kind, String name) {
    return objects.removalEffect(rulebase, kind(kind), name);
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
    Refusal.require(version, "version", "a whole number");
    return objects.remove(rulebase, version, kind(kind), name, headers.by(identity));
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
