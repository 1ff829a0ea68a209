package dev.ironsieve.server.log;

import dev.ironsieve.server.account.Role;
import jakarta.annotation.security.RolesAllowed;
import jakarta.ws.rs.DefaultValue;
import jakarta.ws.rs.GET;
import jakarta.ws.rs.Path;
import jakarta.ws.rs.QueryParam;
import java.util.List;

/** What the gateways of a rulebase decided. */
@Path("/api/rulebases/{rulebase}")
@RolesAllowed(Role.MAY_VIEW)
public class LogResource {
  private final Logs logs;

  LogResource(Logs logs) {
    this.logs = logs;
  }

  /** The hits of every rule that has any. */
  @GET
  @Path("/hits")
  public List<RuleHits> hits(long rulebase) {
    return logs.hits(rulebase);
  }

  /**
   * Records, the newest first.
   *
   * @param rule id of the rule that decided, or {@code default}
   * @param verdict a verdict, or {@code refused} for drop and reject
   * @param address an address, prefix or range, at either end
   * @param application with any feature unless one is named
   * @param since ISO 8601, included
   * @param until ISO 8601, not included
   * @param behind the cursor of a record; only older ones follow
   * @param limit most records, up to 1,000
   */
  @GET
  @Path("/log")
  public LogPage log(
      long rulebase,
      @QueryParam("rule") String rule,
      @QueryParam("verdict") String verdict,
      @QueryParam("person") String person,
      @QueryParam("address") String address,
      @QueryParam("application") String application,
      @QueryParam("since") String since,
      @QueryParam("until") String until,
      @QueryParam("behind") String behind,
      @QueryParam("limit") @DefaultValue("100") int limit) {
    LogFilter filter =
        new LogFilter.Builder()
            .rule(rule)
            .verdict(verdict)
            .person(person)
            .address(address)
            .application(application)
            .since(since)
            .until(until)
            .behind(behind)
            .build();
    return logs.records(rulebase, filter, limit);
  }

  /** How the intake of log records is doing. */
  @GET
  @Path("/log/state")
  public LogState state(long rulebase) {
    return logs.state(rulebase);
  }
}
