package dev.ironsieve.server.demo;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import dev.ironsieve.core.model.Feed;
import dev.ironsieve.core.model.FeedKind;
import dev.ironsieve.server.feed.FeedEditions;
import dev.ironsieve.server.feed.FeedReadings;
import dev.ironsieve.server.feed.FeedSettings;
import dev.ironsieve.server.feed.Feeds;
import jakarta.annotation.PreDestroy;
import jakarta.enterprise.context.ApplicationScoped;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.zip.CRC32;

/** A server of lists in the demo: a web server on loopback, which Brindlemere fetches from. */
@ApplicationScoped
public class DemoFeeds {
  private static final long MOST_BYTES = 1 << 20;

  /** One list: its file at first is {@code file}, and {@code file-later} after a week. */
  private record Offered(String name, FeedKind kind, String file, String type, int mostPercent) {
    String path(boolean later) {
      return "/demo/feeds/" + file + (later ? "-later." : ".") + type;
    }
  }

  private static final List<Offered> LISTS =
      List.of(
          new Offered("Harbour watch list", FeedKind.ADDRESSES, "watch-list", "txt", 30),
          new Offered("Sea registry", FeedKind.COUNTRIES, "sea-registry", "csv", 10),
          new Offered("Sorted hosts", FeedKind.CATEGORIES, "sorted-hosts", "csv", 25));

  private final Feeds feeds;
  private final FeedEditions editions;
  private final FeedReadings readings;
  private final Map<String, byte[]> files = new ConcurrentHashMap<>(); // by path
  private HttpServer server;

  DemoFeeds(Feeds feeds, FeedReadings readings, FeedEditions editions) {
    this.editions = editions;
    this.readings = readings;
    this.feeds = feeds;
  }

  /** Starts it, and has each list fetched from there once. */
  void start() {
    try {
      server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
    } catch (IOException e) {
      throw new UncheckedIOException("the demo's server of lists does not start", e);
    }
    server.createContext("/", this::answer);
    server.start();
    for (Offered list : LISTS) {
      String path = "/" + list.file + "." + list.type;
      files.put(path, DemoFile.bytes(list.path(false)));
      FeedSettings settings =
          new FeedSettings(
              30,
              MOST_BYTES,
              list.mostPercent,
              "http://127.0.0.1:" + server.getAddress().getPort() + path);
      if (feeds.put(list.name, list.kind, settings)) {
        readings.fetch(list.name, null);
      }
    }
  }

  /** The first contents of the lists. */
  List<Feed> first() {
    return LISTS.stream().map(list -> editions.newestOffered(list.name)).toList();
  }

  /** Lets a week pass: other files, which are fetched at once. */
  void later() {
    for (Offered list : LISTS) {
      files.put("/" + list.file + "." + list.type, DemoFile.bytes(list.path(true)));
      readings.fetch(list.name, null);
    }
  }

  private void answer(HttpExchange exchange) throws IOException {
    try (exchange) {
      byte[] file = files.get(exchange.getRequestURI().getPath());
      if (file == null) {
        exchange.sendResponseHeaders(404, -1);
        return;
      }
      CRC32 sum = new CRC32();
      sum.update(file);
      String tag = '"' + HexFormat.of().toHexDigits((int) sum.getValue()) + '"';
      exchange.getResponseHeaders().add("ETag", tag);
      if (tag.equals(exchange.getRequestHeaders().getFirst("If-None-Match"))) {
        exchange.sendResponseHeaders(304, -1);
        return;
      }
      exchange.getResponseHeaders().add("Content-Type", "text/plain; charset=utf-8");
      exchange.sendResponseHeaders(200, file.length);
      exchange.getResponseBody().write(file);
    }
  }

  @PreDestroy
  void stop() {
    if (server != null) {
      server.stop(0);
    }
  }
}
