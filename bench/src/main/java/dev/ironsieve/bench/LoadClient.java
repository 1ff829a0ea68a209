package dev.ironsieve.bench;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.net.Socket;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpRequest.BodyPublishers;
import java.net.http.HttpResponse.BodyHandlers;
import java.nio.charset.StandardCharsets;

/** One signed-in page of a running server. */
final class LoadClient {
  private static final String JSON = "application/json";

  private final HttpClient http;
  private final URI server;
  private final String page;
  private String cookie = "";

  /**
   * @param page name of the page, different for each, by which the server tells pages apart
   */
  LoadClient(HttpClient http, URI server, String page) {
    this.http = http;
    this.server = server;
    this.page = page;
  }

  /** An answer of the server: its status and its text. */
  record Answer(int status, String text) {
    /** The text of an answer that has to be a success. */
    String expected() {
      if (status / 100 != 2) {
        throw new IllegalStateException(status + ": " + text);
      }
      return text;
    }
  }

  /** Another page in the session of this one. */
  LoadClient again(String otherPage) {
    LoadClient out = new LoadClient(http, server, otherPage);
    out.cookie = cookie;
    return out;
  }

  void signIn(String name, String password) {
    HttpRequest request =
        request("/api/session")
            .POST(
                BodyPublishers.ofString(
                    "{\"name\": \"%s\", \"password\": \"%s\"}".formatted(name, password)))
            .build();
    try {
      var answer = http.send(request, BodyHandlers.ofString());
      new Answer(answer.statusCode(), answer.body()).expected();
      cookie = answer.headers().firstValue("Set-Cookie").orElseThrow().split(";")[0];
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    } catch (InterruptedException e) {
      throw interrupted(e);
    }
  }

  private HttpRequest.Builder request(String path) {
    HttpRequest.Builder out =
        HttpRequest.newBuilder(server.resolve(path))
            .header("Content-Type", JSON)
            .header("X-Iron-Sieve", page);
    return cookie.isEmpty() ? out : out.header("Cookie", cookie);
  }

  Answer get(String path) {
    return send(request(path).GET());
  }

  Answer post(String path, String body) {
    return send(request(path).POST(BodyPublishers.ofString(body)));
  }

  Answer patch(String path, String body) {
    return send(request(path).method("PATCH", BodyPublishers.ofString(body)));
  }

  private Answer send(HttpRequest.Builder request) {
    try {
      var answer = http.send(request.build(), BodyHandlers.ofString());
      return new Answer(answer.statusCode(), answer.body());
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    } catch (InterruptedException e) {
      throw interrupted(e);
    }
  }

  private static IllegalStateException interrupted(InterruptedException e) {
    Thread.currentThread().interrupt();
    return new IllegalStateException("interrupted", e);
  }

  /** Asks for a stream of events and leaves it unread; closed by the caller. */
  Socket stream(String path) throws IOException {
    Socket out = new Socket(server.getHost(), server.getPort());
    String head =
        "GET %s HTTP/1.1\r\nHost: %s\r\nAccept: text/event-stream\r\nX-Iron-Sieve: %s\r\nCookie: %s\r\n\r\n"
            .formatted(path, server.getAuthority(), page, cookie);
    out.getOutputStream().write(head.getBytes(StandardCharsets.US_ASCII));
    return out;
  }

  /** Reads a stream until it ends or is closed, and counts its bytes. */
  static long drain(Socket stream) {
    byte[] buffer = new byte[1 << 14];
    long out = 0;
    try (stream;
        InputStream in = stream.getInputStream()) {
      int read = in.read(buffer);
      while (read >= 0) {
        out += read;
        read = in.read(buffer);
      }
    } catch (IOException e) {
      // closed by whoever measures
    }
    return out;
  }
}
