package dev.ironsieve.server.draft;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import dev.ironsieve.formats.Json;
import jakarta.enterprise.context.ApplicationScoped;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CompletionException;
import java.util.function.Supplier;
import java.util.zip.GZIPInputStream;
import java.util.zip.GZIPOutputStream;

/**
 * Whole drafts as they are sent, each version made once however many views open it at the same
 * moment. The last few are kept.
 */
@ApplicationScoped
public class DraftDocuments {
  private static final int MOST_BYTES = 64 << 20;

  /** A publish changes the revision and not the version. */
  private record Key(long draft, int revision, long version) {}

  /** A document, compressed (gzip, RFC 1952). */
  record Encoded(byte[] gzip) {}

  private final Cache<Key, CompletableFuture<Encoded>> made =
      Caffeine.newBuilder()
          .maximumWeight(MOST_BYTES)
          .weigher(
              (Key key, CompletableFuture<Encoded> answer) ->
                  answer.state() == CompletableFuture.State.SUCCESS
                      ? answer.resultNow().gzip().length
                      : 1)
          .build();

  /**
   * The document of a draft as it is now; {@code make} is called unless it is there or is being
   * made.
   */
  Encoded of(LiveDraft draft, Supplier<DraftDocument> make) {
    Key key = new Key(draft.id(), draft.revision(), draft.state().version());
    CompletableFuture<Encoded> own = new CompletableFuture<>();
    CompletableFuture<Encoded> known = made.asMap().putIfAbsent(key, own);
    if (known != null) {
      return joined(known);
    }
    try {
      own.complete(encoded(make.get()));
      made.put(key, own); // weighed again
    } catch (RuntimeException e) {
      made.invalidate(key);
      own.completeExceptionally(e);
    }
    return joined(own);
  }

  private static Encoded joined(CompletableFuture<Encoded> answer) {
    try {
      return answer.join();
    } catch (CompletionException e) {
      throw e.getCause() instanceof RuntimeException known ? known : e;
    }
  }

  /** The JSON of a compressed document. */
  static byte[] unzipped(byte[] gzip) {
    try (GZIPInputStream in = new GZIPInputStream(new ByteArrayInputStream(gzip))) {
      return in.readAllBytes();
    } catch (IOException e) {
      throw new UncheckedIOException("reading from memory", e);
    }
  }

  private static Encoded encoded(DraftDocument document) {
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    try (GZIPOutputStream zip = new GZIPOutputStream(out)) {
      zip.write(Json.line(document).getBytes(StandardCharsets.UTF_8));
    } catch (IOException e) {
      throw new UncheckedIOException("writing to memory", e);
    }
    return new Encoded(out.toByteArray());
  }
}
