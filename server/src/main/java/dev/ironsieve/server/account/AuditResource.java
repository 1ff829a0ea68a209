package dev.ironsieve.server.account;

import de.siegmar.fastcsv.writer.CsvWriter;
import dev.ironsieve.server.audit.AuditEntry;
import dev.ironsieve.server.audit.AuditTrail;
import jakarta.annotation.security.RolesAllowed;
import jakarta.ws.rs.DefaultValue;
import jakarta.ws.rs.GET;
import jakarta.ws.rs.Path;
import jakarta.ws.rs.Produces;
import jakarta.ws.rs.QueryParam;
import java.io.IOException;
import java.io.StringWriter;
import java.io.UncheckedIOException;
import java.util.List;

/** The audit trail, for admins. */
@Path("/api/audit")
@RolesAllowed(Role.MAY_ADMINISTER)
public class AuditResource {
  private final AuditTrail trail;

  AuditResource(AuditTrail trail) {
    this.trail = trail;
  }

  /**
   * Entries, the newest first.
   *
   * @param text part of who, subject or detail
   * @param action in words, such as {@code sign in failed}
   * @param behind id of an entry; only older ones follow
   * @param limit most entries, up to 1,000
   */
  @GET
  public List<AuditEntry> find(
      @QueryParam("text") String text,
      @QueryParam("action") String action,
      @QueryParam("behind") Long behind,
      @QueryParam("limit") @DefaultValue("100") int limit) {
    return trail.find(text, action, behind, limit);
  }

  /** The same as CSV (RFC 4180), with a header; entries behind the last are asked for by its id. */
  @GET
  @Path("/export")
  @Produces("text/csv;charset=utf-8")
  public String export(
      @QueryParam("text") String text,
      @QueryParam("action") String action,
      @QueryParam("behind") Long behind,
      @QueryParam("limit") @DefaultValue("1000") int limit) {
    StringWriter out = new StringWriter();
    try (CsvWriter csv = CsvWriter.builder().build(out)) {
      csv.writeRecord("id", "at", "who", "address", "action", "subject", "detail");
      for (AuditEntry entry : trail.find(text, action, behind, limit)) {
        csv.writeRecord(
            entry.id() + "",
            entry.at(),
            entry.who(),
            entry.address(),
            entry.action(),
            entry.subject(),
            entry.detail());
      }
    } catch (IOException e) {
      throw new UncheckedIOException("writing to memory", e);
    }
    return out.toString();
  }
}
