package dev.ironsieve.server.http;

import jakarta.ws.rs.container.ContainerRequestContext;
import jakarta.ws.rs.core.Response;
import java.net.URI;
import java.util.Set;
import org.jboss.resteasy.reactive.server.ServerRequestFilter;

/**
 * Refuses changes that another site makes a browser ask for: a change must carry a header that no
 * form can set, and neither {@code Sec-Fetch-Site} nor {@code Origin} may name another site. The
 * session cookie is SameSite=Strict besides.
 */
public final class CrossSiteGuard {
  /** The header that changes must carry, with any value. */
  public static final String HEADER = "X-Iron-Sieve";

  private static final Set<String> HARMLESS = Set.of("GET", "HEAD", "OPTIONS");

  @ServerRequestFilter(preMatching = true)
  public Response check(ContainerRequestContext request) {
    if (HARMLESS.contains(request.getMethod())) {
      return null;
    }
    String site = request.getHeaderString("Sec-Fetch-Site");
    String origin = request.getHeaderString("Origin");
    boolean other =
        (site != null && !site.equals("same-origin") && !site.equals("none"))
            || (origin != null && !isOwn(origin, request.getHeaderString("Host")));
    if (other || request.getHeaderString(HEADER) == null) {
      return Problems.respond(
          Problem.of(403, "Changes are taken from this site's own pages only."));
    }
    return null;
  }

  private static boolean isOwn(String origin, String host) {
    try {
      return URI.create(origin).getAuthority() != null
          && URI.create(origin).getAuthority().equalsIgnoreCase(host);
    } catch (IllegalArgumentException e) {
      return false;
    }
  }
}
