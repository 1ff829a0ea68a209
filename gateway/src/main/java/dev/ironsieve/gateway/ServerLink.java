package dev.ironsieve.gateway;

import com.fasterxml.jackson.annotation.JsonInclude;
import dev.ironsieve.formats.InvalidDocument;
import dev.ironsieve.formats.Json;
import java.io.IOException;
import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.time.Duration;

/** The requests of a gateway to its server. Each throws if the server is away or refuses. */
final class ServerLink {
  private static final Duration CONNECT = Duration.ofSeconds(5);
  private static final Duration ANSWER = Duration.ofSeconds(60); // longer than a poll waits
  private static final int UNAUTHORIZED = 401;

  /** The server answered a request with a refusal. */
  static final class Refused extends IOException {
    private final int status;

    Refused(int status, String message) {
      super(message);
      this.status = status;
    }

    /** Whether the gateway's secret or token is not valid. */
    boolean isUntrusted() {
      return status == UNAUTHORIZED;
    }
  }

  record Enrolment(String token) {}

  record Enrolled(String name, String secret) {}

  record Desired(int revision, String digest) {}

  @JsonInclude(JsonInclude.Include.NON_NULL)
  record Report(int revision, String digest, String state, String reason) {}

  private final URI server;
  private final HttpClient client =
      HttpClient.newBuilder().version(HttpClient.Version.HTTP_1_1).connectTimeout(CONNECT).build();
  private String secret = "";

  ServerLink(URI server) {
    this.server = server;
  }

  void use(String secret) {
    this.secret = secret;
  }

  Enrolled enrol(String token) throws IOException, InterruptedException {
    return read(
        send(request("/api/gateway/enrol").POST(body(new Enrolment(token)))), Enrolled.class);
  }

  /**
   * The revision to follow; waits for another one if the gateway has it already.
   *
   * @param has the digest that the gateway has, or null
   */
  Desired desired(String has) throws IOException, InterruptedException {
    String query = has == null ? "" : "?has=" + URLEncoder.encode(has, StandardCharsets.UTF_8);
    return read(send(request("/api/gateway/desired" + query).GET()), Desired.class);
  }

  byte[] document(String digest) throws IOException, InterruptedException {
    return send(request("/api/gateway/revisions/" + digest).GET());
  }

  void report(Report report) throws IOException, InterruptedException {
    send(request("/api/gateway/report").POST(body(report)));
  }

  private HttpRequest.Builder request(String path) {
    return HttpRequest.newBuilder(server.resolve(path))
        .timeout(ANSWER)
        .header("Authorization", "Bearer " + secret)
        .header("Content-Type", "application/json")
        .header("X-Iron-Sieve", "gateway");
  }

  private static HttpRequest.BodyPublisher body(Object document) {
    return HttpRequest.BodyPublishers.ofString(Json.line(document));
  }

  private byte[] send(HttpRequest.Builder request) throws IOException, InterruptedException {
    HttpResponse<byte[]> response =
        client.send(request.build(), HttpResponse.BodyHandlers.ofByteArray());
    if (response.statusCode() / 100 != 2) {
      throw new Refused(
          response.statusCode(),
          "%s answered %d".formatted(response.uri().getPath(), response.statusCode()));
    }
    return response.body();
  }

  private static <T> T read(byte[] json, Class<T> type) throws IOException {
    try {
      return Json.read(json, type);
    } catch (InvalidDocument e) {
      throw new IOException("the server's answer is not understood: " + e.getMessage(), e);
    }
  }
}
