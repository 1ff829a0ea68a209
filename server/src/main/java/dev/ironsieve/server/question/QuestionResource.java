package dev.ironsieve.server.question;

import dev.ironsieve.server.account.Role;
import dev.ironsieve.server.refusal.Refusal;
import jakarta.annotation.security.RolesAllowed;
import jakarta.ws.rs.GET;
import jakarta.ws.rs.Path;

/** The questions that are being answered. */
@Path("/api/questions")
@RolesAllowed(Role.MAY_VIEW)
public class QuestionResource {
  private final QuestionPool pool;

  QuestionResource(QuestionPool pool) {
    this.pool = pool;
  }

  /** The progress of a question, by the name that its request gave in the header X-Question. */
  @GET
  @Path("/{name}")
  public QuestionProgress progress(String name) {
    return pool.progress(name).orElseThrow(() -> new Refusal.NotFound("No such question is open."));
  }
}
