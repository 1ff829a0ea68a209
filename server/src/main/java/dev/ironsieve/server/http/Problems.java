package dev.ironsieve.server.http;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.exc.MismatchedInputException;
import dev.ironsieve.core.edit.MissingTarget;
import dev.ironsieve.core.model.InvalidModel;
import dev.ironsieve.core.sets.InvalidText;
import dev.ironsieve.formats.Fault;
import dev.ironsieve.formats.InvalidDocument;
import dev.ironsieve.formats.Json;
import dev.ironsieve.server.refusal.Refusal;
import io.quarkus.security.AuthenticationFailedException;
import io.quarkus.security.ForbiddenException;
import io.quarkus.security.UnauthorizedException;
import jakarta.ws.rs.WebApplicationException;
import jakarta.ws.rs.core.Response;
import java.io.CharConversionException;
import java.util.List;
import org.jboss.logging.Logger;
import org.jboss.resteasy.reactive.server.ServerExceptionMapper;

/** The one place that turns exceptions into answers: problem documents (RFC 9457). */
public final class Problems {
  private static final Logger LOG = Logger.getLogger(Problems.class);
  private static final String MEDIA_TYPE = "application/problem+json";

  static Response respond(Problem problem) {
    return Response.status(problem.status()).type(MEDIA_TYPE).entity(problem).build();
  }

  @ServerExceptionMapper
  public Response refusal(Refusal e) {
    Response answer = respond(Problem.of(e));
    return e instanceof Refusal.Busy busy && busy.seconds() > 0
        ? Response.fromResponse(answer).header("Retry-After", busy.seconds()).build()
        : answer;
  }

  @ServerExceptionMapper
  public Response invalidDocument(InvalidDocument e) {
    return respond(Problem.invalid(422, e.faults()));
  }

  @ServerExceptionMapper
  public Response invalidModel(InvalidModel e) {
    return refusal(new Refusal.Invalid(e.place(), e.expected(), e.found()));
  }

  @ServerExceptionMapper
  public Response invalidText(InvalidText e) {
    return refusal(new Refusal.Invalid("character " + (e.offset() + 1), e.expected(), e.found()));
  }

  @ServerExceptionMapper
  public Response missing(MissingTarget e) {
    return respond(Problem.of(409, "There is " + e.getMessage() + "."));
  }

  /** The library's own mapper would take these, and say nothing. */
  @ServerExceptionMapper
  public Response mismatch(MismatchedInputException e) {
    return json(e);
  }

  @ServerExceptionMapper
  public Response json(JsonProcessingException e) {
    Fault fault = Json.fault(e);
    return respond(Problem.invalid(400, List.of(fault)));
  }

  @ServerExceptionMapper({UnauthorizedException.class, AuthenticationFailedException.class})
  public Response notSignedIn(RuntimeException e) {
    return respond(Problem.of(401, "Sign in first."));
  }

  @ServerExceptionMapper
  public Response forbidden(ForbiddenException e) {
    return respond(Problem.of(403, "Your role does not allow this."));
  }

  @ServerExceptionMapper
  public Response web(WebApplicationException e) {
    if (e.getCause() instanceof JsonProcessingException json) {
      return json(json);
    }
    int status = e.getResponse().getStatus();
    return respond(Problem.of(status, Problem.title(status) + "."));
  }

  /** A body in an encoding that is none. */
  @ServerExceptionMapper
  public Response encoding(CharConversionException e) {
    Fault fault = new Fault("$", "JSON in UTF-8 (RFC 8259)", "another encoding");
    return respond(Problem.invalid(400, List.of(fault)));
  }

  @ServerExceptionMapper
  public Response rest(Throwable e) {
    LOG.error("a request failed", e);
    return respond(Problem.of(500, "The server failed; its log has the details."));
  }
}
