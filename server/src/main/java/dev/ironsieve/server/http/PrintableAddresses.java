package dev.ironsieve.server.http;

import dev.ironsieve.core.model.Names;
import jakarta.ws.rs.container.ContainerRequestContext;
import jakarta.ws.rs.core.Response;
import org.jboss.resteasy.reactive.server.ServerRequestFilter;

/**
 * Refuses addresses with control characters or halves of surrogate pairs in their path or query:
 * nothing has such a name, and the database could not look for it.
 */
public final class PrintableAddresses {
  @ServerRequestFilter(preMatching = true)
  public Response check(ContainerRequestContext request) {
    boolean printable =
        Names.isPrintable(request.getUriInfo().getPath(true))
            && request.getUriInfo().getQueryParameters(true).values().stream()
                .allMatch(values -> values.stream().allMatch(Names::isPrintable));
    return printable
        ? null
        : Problems.respond(
            Problem.of(400, "The address has characters that nothing can be called by."));
  }
}
