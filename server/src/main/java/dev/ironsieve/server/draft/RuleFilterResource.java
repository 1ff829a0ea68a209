package dev.ironsieve.server.draft;

import dev.ironsieve.core.model.AddressItem;
import dev.ironsieve.core.model.ServiceItem;
import dev.ironsieve.core.reach.MatchingRules;
import dev.ironsieve.core.ruleindex.RuleIndex;
import dev.ironsieve.server.account.Role;
import dev.ironsieve.server.refusal.Refusal;
import jakarta.annotation.security.RolesAllowed;
import jakarta.ws.rs.GET;
import jakarta.ws.rs.Path;
import jakarta.ws.rs.QueryParam;
import java.util.List;
import java.util.function.BiFunction;
import java.util.function.Function;

/** The rules that match some connections, for the filter of the list. */
@Path("/api/rulebases/{rulebase}/draft/rules/matching")
@RolesAllowed(Role.MAY_VIEW)
public class RuleFilterResource {
  private final DraftQuestions questions;

  RuleFilterResource(DraftQuestions questions) {
    this.questions = questions;
  }

  /**
   * The rules that match connections from or to an address, the disabled ones too.
   *
   * @param address an address, a prefix, a range, or the name of an object
   */
  @GET
  @Path("/address")
  public FoundRules address(long rulebase, @QueryParam("value") String address) {
    return find(rulebase, address, AddressItem::parse, MatchingRules::withAddress);
  }

  /**
   * The rules that match connections of a service, the disabled ones too.
   *
   * @param service a service such as {@code tcp/443}, or the name of an object
   */
  @GET
  @Path("/service")
  public FoundRules service(long rulebase, @QueryParam("value") String service) {
    return find(rulebase, service, ServiceItem::parse, MatchingRules::withService);
  }

  private <T> FoundRules find(
      long rulebase,
      String said,
      Function<String, T> parse,
      BiFunction<RuleIndex, T, List<String>> find) {
    T item = parse.apply(Refusal.require(said, "value", "a value"));
    return questions.askAnalysed(
        rulebase, asked -> new FoundRules(asked.withRoom(index -> find.apply(index, item))));
  }
}
