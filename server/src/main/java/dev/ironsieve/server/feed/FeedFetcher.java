package dev.ironsieve.server.feed;

import java.io.IOException;
import java.io.InputStream;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.time.Duration;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.FutureTask;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;

/** Fetches a file over HTTP or HTTPS (RFC 9110). */
final class FeedFetcher {
  private static final int OK = 200;
  private static final int NOT_MODIFIED = 304;

  private FeedFetcher() {}

  /**
   * The fetched contents.
   *
   * @param file null if it is as it was when it had the entity tag that was sent
   * @param etag its entity tag (RFC 9110, 8.8.3), or null
   */
  record Fetched(byte[] file, String etag) {}

  /**
   * Fetches a file, redirects followed.
   *
   * @param etag the entity tag of the stored edition, or null
   * @param mostBytes how large the file may be
   * @param longest how long all of it may take
   * @throws FeedFault if it is not to be had, or not within these limits
   */
  static Fetched fetch(URI url, String etag, long mostBytes, Duration longest) {
    HttpClient client =
        HttpClient.newBuilder()
            .connectTimeout(longest)
            .followRedirects(HttpClient.Redirect.NORMAL)
            .build();
    FutureTask<Fetched> task = new FutureTask<>(() -> fetch(client, url, etag, mostBytes));
    Thread.ofVirtual().name("feed " + url.getHost()).start(task);
    try {
      return task.get(longest.toMillis(), TimeUnit.MILLISECONDS);
    } catch (TimeoutException e) {
      throw new FeedFault("It took longer than " + longest.toSeconds() + " seconds.");
    } catch (ExecutionException e) {
      throw e.getCause() instanceof FeedFault fault ? fault : new FeedFault(words(e.getCause()));
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new FeedFault("The server is going down.");
    } finally {
      client.shutdownNow();
    }
  }

  private static String words(Throwable cause) {
    String detail = cause.getMessage() == null ? "" : ": " + cause.getMessage();
    return "It could not be fetched (" + cause.getClass().getSimpleName() + detail + ").";
  }

  private static Fetched fetch(HttpClient client, URI url, String etag, long mostBytes)
      throws IOException, InterruptedException {
    HttpRequest.Builder request = HttpRequest.newBuilder(url).GET();
    if (etag != null) {
      request.header("If-None-Match", etag);
    }
    HttpResponse<InputStream> response =
        client.send(request.build(), HttpResponse.BodyHandlers.ofInputStream());
    String tag = response.headers().firstValue("ETag").orElse(null);
    try (InputStream body = response.body()) {
      if (response.statusCode() == NOT_MODIFIED && etag != null) {
        return new Fetched(null, etag);
      }
      if (response.statusCode() != OK) {
        throw new FeedFault("The answer was " + response.statusCode() + " instead of 200.");
      }
      byte[] file = body.readNBytes((int) Math.min(Integer.MAX_VALUE - 8, mostBytes + 1));
      if (file.length > mostBytes) {
        throw new FeedFault("It is larger than " + mostBytes + " bytes.");
      }
      return new Fetched(file, tag);
    }
  }
}
