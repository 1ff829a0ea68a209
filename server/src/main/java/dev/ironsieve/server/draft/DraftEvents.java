package dev.ironsieve.server.draft;

import dev.ironsieve.formats.Json;
import io.quarkus.scheduler.Scheduled;
import io.smallrye.mutiny.Multi;
import io.smallrye.mutiny.subscription.MultiEmitter;
import jakarta.enterprise.context.ApplicationScoped;
import jakarta.ws.rs.sse.OutboundSseEvent;
import jakarta.ws.rs.sse.Sse;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.CopyOnWriteArrayList;
import org.eclipse.microprofile.openapi.annotations.media.Schema;

/** Sends the changes of a draft to every open view, as server-sent events. */
@ApplicationScoped
public class DraftEvents {
  /** The draft became a revision. */
  public record Published(@Schema(required = true) int revision) {}

  /**
   * The people who have the draft open.
   *
   * @param people display names, each once
   */
  public record Presence(@Schema(required = true) List<String> people) {}

  private record View(String person, Sse sse, MultiEmitter<? super OutboundSseEvent> emitter) {
    /**
     * @param json written once for all views
     */
    void send(String name, String json) {
      emitter.emit(sse.newEventBuilder().name(name).data(json).build());
    }
  }

  /** Events that may wait for one view; a slower one is cut off, and opens the draft anew. */
  private static final int MOST_WAITING = 64;

  private final Map<Long, List<View>> views = new ConcurrentHashMap<>();

  /** The events of one view, from now until it closes. */
  Multi<OutboundSseEvent> open(long draft, String person, Sse sse) {
    return Multi.createFrom()
        .<OutboundSseEvent>emitter(
            emitter -> {
              View view = new View(person, sse, emitter);
              views.computeIfAbsent(draft, d -> new CopyOnWriteArrayList<>()).add(view);
              emitter.onTermination(() -> close(draft, view));
              tellPresence(draft);
            })
        .onOverflow()
        .buffer(MOST_WAITING);
  }

  private void close(long draft, View view) {
    if (views.getOrDefault(draft, List.of()).remove(view)) {
      tellPresence(draft);
    }
  }

  private void tellPresence(long draft) {
    List<View> open = views.getOrDefault(draft, List.of());
    List<String> people = open.stream().map(View::person).distinct().sorted().toList();
    String json = Json.line(new Presence(people));
    open.forEach(view -> view.send("presence", json));
  }

  void changed(long draft, ChangeDocument change) {
    List<View> open = views.getOrDefault(draft, List.of());
    if (!open.isEmpty()) {
      String json = Json.line(change);
      open.forEach(view -> view.send("change", json));
    }
  }

  void published(long draft, int revision) {
    String json = Json.line(new Published(revision));
    views.getOrDefault(draft, List.of()).forEach(view -> view.send("published", json));
  }

  /** Lets dead connections be noticed. */
  @Scheduled(every = "15s")
  void beat() {
    views.values().forEach(open -> open.forEach(view -> view.send("beat", "")));
  }
}
