package dev.ironsieve.server;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import io.quarkus.test.common.http.TestHTTPResource;
import io.quarkus.test.junit.QuarkusTest;
import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpRequest.BodyPublishers;
import java.net.http.HttpResponse;
import java.net.http.HttpResponse.BodyHandlers;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.junit.jupiter.api.Test;

/**
 * Every operation of the OpenAPI description with hostile values in every parameter and in every
 * member of its body, as every role: 4xx with a reason, never 5xx, never a stack trace.
 */
@QuarkusTest
class HostileInputTest {
  private static final ObjectMapper JSON = new ObjectMapper();
  private static final String DEEP = "[".repeat(3000) + "]".repeat(3000);

  /** As they stand in an address. */
  private static final List<String> IN_ADDRESSES =
      List.of(
          "%00",
          "a%00b",
          "%ED%A0%80",
          "%FF%FE",
          "99999999999999999999",
          "-1",
          "-9223372036854775808",
          "%25",
          "..%2F..",
          "%20",
          "1e9",
          "null",
          "%F0%9F%A6%80",
          "%E2%80%AE",
          "'%3B--",
          "x".repeat(3000));

  /** As they stand in a body. */
  private static final List<String> IN_BODIES =
      List.of(
          "null",
          "\"\"",
          "\"\\u0000\"",
          "\"\\ud800\"",
          "-1",
          "1e400",
          "9223372036854775808",
          "0.5",
          "true",
          "[]",
          "{}",
          "[null]",
          "[[[[]]]]",
          "{\"\\u0000\": 1}",
          "\"" + "x".repeat(20_000) + "\"",
          DEEP);

  /** Whole bodies. */
  private static final List<byte[]> BODIES =
      List.of(
          new byte[0],
          new byte[] {0},
          new byte[] {(byte) 0xff, (byte) 0xfe, 0x7b, 0},
          "\u0000\u0000\u0000{".getBytes(StandardCharsets.UTF_16),
          DEEP.getBytes(StandardCharsets.UTF_8),
          "{\"a\": 1, \"a\": 1}".getBytes(StandardCharsets.UTF_8),
          "nul".getBytes(StandardCharsets.UTF_8),
          "BEGIN:VCALENDAR\r\nBEGIN:VEVENT\r\nDTSTART:20260231T250000\r\n"
              .getBytes(StandardCharsets.UTF_8));

  /** Signing out would end what the other requests need. */
  private static final Set<String> LEFT_OUT = Set.of("DELETE /api/session");

  @TestHTTPResource URI server;

  private final HttpClient client = HttpClient.newHttpClient();
  private JsonNode description;
  private int sent;

  private record Operation(String method, String path, JsonNode node) {}

  @Test
  void isRefusedWithAReason() throws IOException, InterruptedException {
    description = JSON.readTree(send(null, "GET", "/api/openapi?format=json", null, null).body());
    Map<String, String> sessions = new LinkedHashMap<>();
    sessions.put("nobody", null);
    for (String name : List.of("ines.calder", "ruth.okell", "odile.marsh")) {
      sessions.put(name, Client.signedIn(name).session());
    }
    Client ruth = Client.signedIn("ruth.okell");
    long rulebase = ruth.rulebase("Hostile");
    for (Operation operation : operations()) {
      for (String session : sessions.values()) {
        inEveryParameter(operation, session, rulebase);
      }
      inBody(operation, sessions.get("odile.marsh"), rulebase);
      inBody(operation, sessions.get("ruth.okell"), rulebase);
    }
    assertThat(sent).isGreaterThan(5000);
    ruth.draft(rulebase).then().statusCode(200);
  }

  private List<Operation> operations() {
    List<Operation> out = new ArrayList<>();
    description
        .get("paths")
        .properties()
        .forEach(
            path ->
                path.getValue()
                    .properties()
                    .forEach(
                        method ->
                            out.add(
                                new Operation(
                                    method.getKey().toUpperCase(java.util.Locale.ROOT),
                                    path.getKey(),
                                    method.getValue()))));
    out.removeIf(one -> LEFT_OUT.contains(one.method + " " + one.path));
    return out;
  }

  private void inEveryParameter(Operation operation, String session, long rulebase)
      throws IOException, InterruptedException {
    for (JsonNode parameter : operation.node.path("parameters")) {
      String name = parameter.get("name").asText();
      String in = parameter.get("in").asText();
      for (String value : IN_ADDRESSES) {
        String path = operation.path;
        String query = "";
        if (in.equals("path")) {
          path = path.replace("{" + name + "}", value);
        } else if (in.equals("query")) {
          query = "?" + name + "=" + value;
        }
        check(
            operation,
            session,
            filled(path, rulebase) + query,
            "{}".getBytes(),
            "application/json");
      }
    }
  }

  /** The path with values that exist, or with harmless ones. */
  private static String filled(String path, long rulebase) {
    return path.replace("{rulebase}", rulebase + "")
        .replace("{coordinate}", "application")
        .replace("{kind}", "address")
        .replace("{capture}", "1")
        .replace("{edition}", "2026-11")
        .replaceAll("\\{[a-z]+}", "nobody");
  }

  private void inBody(Operation operation, String session, long rulebase)
      throws IOException, InterruptedException {
    JsonNode content = operation.node.path("requestBody").path("content");
    String path = filled(operation.path, rulebase);
    for (Map.Entry<String, JsonNode> type : content.properties()) {
      String media = type.getKey().equals("*/*") ? "application/octet-stream" : type.getKey();
      for (byte[] body : BODIES) {
        check(operation, session, path, body, media);
      }
      JsonNode schema = type.getValue().path("schema");
      for (String body : bodies(schema, 3)) {
        check(operation, session, path, body.getBytes(StandardCharsets.UTF_8), media);
      }
    }
  }

  /** Bodies of a schema with a hostile value for one member each, down to some depth. */
  private List<String> bodies(JsonNode schema, int depth) throws JsonProcessingException {
    List<String> out = new ArrayList<>(IN_BODIES);
    JsonNode resolved = resolved(schema);
    if (depth == 0 || !resolved.has("properties")) {
      return out;
    }
    for (Map.Entry<String, JsonNode> property : resolved.get("properties").properties()) {
      JsonNode inner = resolved(property.getValue());
      boolean list = inner.path("type").asText().equals("array");
      JsonNode element = list ? inner.path("items") : inner;
      List<String> values =
          resolved(element).has("properties") ? bodies(element, depth - 1) : IN_BODIES;
      for (String value : values) {
        ObjectNode body = harmless(resolved);
        String marker = "\"@\"";
        body.put(property.getKey(), "@");
        out.add(JSON.writeValueAsString(body).replace(marker, list ? "[" + value + "]" : value));
      }
    }
    return out;
  }

  private ObjectNode harmless(JsonNode schema) {
    ObjectNode out = JSON.createObjectNode();
    for (Map.Entry<String, JsonNode> property : schema.get("properties").properties()) {
      JsonNode inner = resolved(property.getValue());
      if (inner.has("enum")) {
        out.set(property.getKey(), inner.get("enum").get(0));
      } else if (inner.path("type").asText().equals("integer")) {
        out.put(property.getKey(), 0);
      } else if (inner.path("type").asText().equals("string")) {
        out.put(property.getKey(), "nobody");
      }
    }
    return out;
  }

  private JsonNode resolved(JsonNode schema) {
    String reference = schema.path("$ref").asText();
    return reference.isEmpty()
        ? schema
        : description
            .path("components")
            .path("schemas")
            .path(reference.substring(reference.lastIndexOf('/') + 1));
  }

  private void check(Operation operation, String session, String path, byte[] body, String media)
      throws IOException, InterruptedException {
    boolean endless = operation.path.endsWith("/events") && !path.contains("%");
    if (endless && path.matches("/api/rulebases/[0-9]+/.*")) {
      return; // a stream of events does not end
    }
    HttpResponse<String> answer = send(session, operation.method, path, body, media);
    String as = operation.method + " " + path.substring(0, Math.min(200, path.length()));
    String told = answer.body();
    assertThat(answer.statusCode())
        .as(
            "%s%n%s%n%s",
            as, new String(body, 0, Math.min(body.length, 400), StandardCharsets.UTF_8), told)
        .isLessThan(500);
    assertThat(told).as(as).doesNotContain("\tat ", "Exception", "com.fasterxml", "java.lang");
    if (answer.statusCode() >= 400 && path.startsWith("/api/") && !told.isEmpty()) {
      assertThat(JSON.readTree(told).path("detail").asText()).as(as).isNotBlank();
    }
  }

  private HttpResponse<String> send(
      String session, String method, String path, byte[] body, String media)
      throws IOException, InterruptedException {
    sent++;
    HttpRequest.Builder request =
        HttpRequest.newBuilder(URI.create(server.toString().replaceAll("/$", "") + path))
            .header(Client.HEADER, "hostile")
            .header("Accept", "application/json, */*")
            .method(
                method,
                body == null || method.equals("GET")
                    ? BodyPublishers.noBody()
                    : BodyPublishers.ofByteArray(body));
    if (media != null && !method.equals("GET")) {
      request.header("Content-Type", media);
    }
    if (session != null) {
      request.header("Cookie", Client.COOKIE + "=" + session);
    }
    return client.send(request.build(), BodyHandlers.ofString());
  }

  @Test
  void headersAreRefusedWithAReason() throws IOException, InterruptedException {
    Client ruth = Client.signedIn("ruth.okell");
    for (String accept : List.of("x".repeat(5000), "*/*;q=x", "\u00ff/\u00ff", ",,,,", ";", "a/")) {
      HttpRequest request =
          HttpRequest.newBuilder(
                  URI.create(server.toString().replaceAll("/$", "") + "/api/rulebases"))
              .header("Accept", accept)
              .header("Cookie", Client.COOKIE + "=" + ruth.session())
              .build();
      assertThat(client.send(request, BodyHandlers.ofString()).statusCode())
          .as(accept)
          .isLessThan(500);
    }
  }
}
