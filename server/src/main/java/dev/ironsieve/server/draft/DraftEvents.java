package dev.ironsieve.server.draft;

import io.quarkus.scheduler.Scheduled;
import io.smallrye.mutiny.Multi;
import io.smallrye.mutiny.subscription.MultiEmitter;
import jakarta.enterprise.context.ApplicationScoped;
import jakarta.ws.rs.core.MediaType;
import jakarta.ws.rs.sse.OutboundSseEvent;
import jakarta.ws.rs.sse.Sse;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.CopyOnWriteArrayList;
import org.eclipse.microprofile.openapi.annotations.media.Schema;

/** Tells every open view of a draft what happens to it, as server-sent events. */
@ApplicationScoped
public class DraftEvents {
  /**
   * Who has the draft open.
   *
   * @param people display names, each once
   */
  public record Presence(@Schema(required = true) List<String> people) {}

  private record View(String person, Sse sse, MultiEmitter<? super OutboundSseEvent> emitter) {
    void send(String name, Object data) {
      emitter.emit(sse.newEventBuilder().name(name).data(data).mediaType(JSON).build());
    }
  }

  private static final MediaType JSON = MediaType.APPLICATION_JSON_TYPE;

  private final Map<Long, List<View>> views = new ConcurrentHashMap<>();

  /** The events of one view, from now until it closes. */
  Multi<OutboundSseEvent> open(long draft, String person, Sse sse) {
    return Multi.createFrom()
        .emitter(
            emitter -> {
              View view = new View(person, sse, emitter);
              views.computeIfAbsent(draft, d -> new CopyOnWriteArrayList<>()).add(view);
              emitter.onTermination(() -> close(draft, view));
              tellPresence(draft);
            });
  }

  private void close(long draft, View view) {
    views.getOrDefault(draft, List.of()).remove(view);
    tellPresence(draft);
  }

  private void tellPresence(long draft) {
    List<View> open = views.getOrDefault(draft, List.of());
    List<String> people = open.stream().map(View::person).distinct().sorted().toList();
    open.forEach(view -> view.send("presence", new Presence(people)));
  }

  void changed(long draft, ChangeDocument change) {
    views.getOrDefault(draft, List.of()).forEach(view -> view.send("change", change));
  }

  /** Lets dead connections be noticed. */
  @Scheduled(every = "15s")
  void beat() {
    views.values().forEach(open -> open.forEach(view -> view.send("beat", "")));
  }
}
