package dev.ironsieve.server;

import static org.assertj.core.api.Assertions.assertThat;

import io.quarkus.test.junit.QuarkusTest;
import io.restassured.path.json.JsonPath;
import io.restassured.response.Response;
import io.restassured.specification.RequestSpecification;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.junit.jupiter.api.Test;

/** Every operation of the description, by everyone who may not. */
@QuarkusTest
class RolesTest {
  private static final Set<String> OPEN =
      Set.of("POST /api/session", "DELETE /api/session", "POST /api/setup");

  /** What gateways ask, with a secret of their own; see {@link GatewayTest}. */
  private static final String DEVICES = "/api/gateway/";

  record Operation(String method, String path) {
    String name() {
      return method + " " + path;
    }

    Response send(RequestSpecification as) {
      String filled =
          path.replace("{rulebase}", "1")
              .replace("{name}", "nobody.here")
              .replace("{edition}", "2026-11")
              .replace("{coordinate}", "application")
              .replace("{snapshot}", "2026-11-20")
              .replace("{person}", "Ben Holm")
              .replace("{application}", "Gullwire")
              .replace("{rule}", "h01")
              .replace("{finding}", "shadowed")
              .replace("{address}", "10.1.99.9")
              .replace("{kind}", "address")
              .replace("{feed}", "Sea registry")
              .replace("{capture}", "1")
              .replace("{number}", "1")
              .replace("{earlier}", "1")
              .replace("{gateway}", "1")
              .replace("{other}", "1")
              .replace("{comment}", "1")
              .replace("{digest}", "0".repeat(64));
      return as.body("{}").request(method, filled);
    }

    boolean changes() {
      return !method.equals("GET") && !path.endsWith("/probe") && !path.endsWith("/try");
    }
  }

  private static List<Operation> operations() {
    JsonPath description =
        Client.anonymous().accept("application/json").get("/api/openapi?format=json").jsonPath();
    Map<String, Map<String, Object>> paths = description.getMap("paths");
    List<Operation> out = new ArrayList<>();
    paths.forEach(
        (path, methods) ->
            methods.keySet().forEach(m -> out.add(new Operation(m.toUpperCase(), path))));
    return out;
  }

  @Test
  void nobodyGetsAnywhereWithoutASession() {
    List<Operation> all = operations();
    assertThat(all).hasSizeGreaterThan(15);
    for (Operation operation : all) {
      if (!OPEN.contains(operation.name()) && !operation.path().startsWith(DEVICES)) {
        assertThat(operation.send(Client.anonymous()).statusCode())
            .as(operation.name())
            .isEqualTo(401);
      }
    }
  }

  @Test
  void viewersChangeNothingAndOnlyAdminsSeeAccounts() {
    Client viewer = Client.signedIn("ines.calder");
    Client editor = Client.signedIn("tomas.wren");
    int refused = 0;
    for (Operation operation : operations()) {
      if (OPEN.contains(operation.name())
          || operation.path().startsWith(DEVICES)
          || operation.path().endsWith("/events")) {
        continue;
      }
      boolean accounts =
          operation.path().startsWith("/api/accounts") || operation.path().startsWith("/api/audit");
      if (accounts) {
        assertThat(operation.send(editor.request()).statusCode())
            .as(operation.name())
            .isEqualTo(403);
      }
      if (accounts || operation.changes()) {
        assertThat(operation.send(viewer.request()).statusCode())
            .as(operation.name())
            .isEqualTo(403);
        refused++;
      } else {
        assertThat(operation.send(viewer.request()).statusCode())
            .as(operation.name())
            .isNotIn(401, 403)
            .isLessThan(500);
      }
    }
    assertThat(refused).isGreaterThanOrEqualTo(8);
  }
}
