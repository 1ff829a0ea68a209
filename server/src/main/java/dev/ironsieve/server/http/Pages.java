package dev.ironsieve.server.http;

import io.quarkus.vertx.http.runtime.filters.Filters;
import io.vertx.core.http.HttpServerResponse;
import io.vertx.ext.web.Router;
import io.vertx.ext.web.RoutingContext;
import jakarta.enterprise.context.ApplicationScoped;
import jakarta.enterprise.event.Observes;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.security.SecureRandom;
import java.util.Base64;

/** The security headers of every answer, and the one page of the web app at every address of it. */
@ApplicationScoped
public class Pages {
  private static final String INDEX = "dev/ironsieve/web/index.html";
  private static final String NONCE = "__NONCE__";
  private static final String POLICY =
      "default-src 'none'; script-src 'self'; connect-src 'self'; img-src 'self' data:;"
          + " font-src 'self'; style-src 'self' 'nonce-%s'; base-uri 'none';"
          + " form-action 'self'; frame-ancestors 'none'";

  private final SecureRandom random = new SecureRandom();

  void headers(@Observes Filters filters) {
    filters.register(
        context -> {
          HttpServerResponse response = context.response();
          response.putHeader("X-Content-Type-Options", "nosniff");
          response.putHeader("Referrer-Policy", "no-referrer");
          response.putHeader("X-Frame-Options", "DENY");
          response.putHeader("Cross-Origin-Opener-Policy", "same-origin");
          response.putHeader("Cross-Origin-Resource-Policy", "same-origin");
          response.putHeader("Permissions-Policy", "camera=(), microphone=(), geolocation=()");
          response.putHeader("Content-Security-Policy", POLICY.formatted("none"));
          if (context.request().isSSL()) {
            response.putHeader("Strict-Transport-Security", "max-age=31536000");
          }
          if (context.request().path().startsWith("/assets/")) {
            response.putHeader("Cache-Control", "public, max-age=31536000, immutable");
          } else {
            response.putHeader("Cache-Control", "no-store");
          }
          context.next();
        },
        1000);
  }

  void index(@Observes Router router) {
    // Before the other routes, which would answer 404; the app's own addresses are all of these.
    router.getWithRegex("/(setup|rulebases/.*)?").order(-1).handler(this::page);
  }

  private void page(RoutingContext context) {
    byte[] bytes = new byte[18];
    random.nextBytes(bytes);
    String nonce = Base64.getEncoder().encodeToString(bytes);
    context
        .response()
        .putHeader("Content-Security-Policy", POLICY.formatted(nonce))
        .putHeader("Content-Type", "text/html; charset=utf-8")
        .end(page().replace(NONCE, nonce));
  }

  private static String page() {
    try (InputStream in =
        Thread.currentThread().getContextClassLoader().getResourceAsStream(INDEX)) {
      if (in == null) {
        return "<!doctype html><title>Iron Sieve</title><p>The web app was not built.";
      }
      return new String(in.readAllBytes(), StandardCharsets.UTF_8);
    } catch (IOException e) {
      throw new UncheckedIOException(INDEX, e);
    }
  }
}
