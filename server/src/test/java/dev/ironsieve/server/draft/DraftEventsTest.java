package dev.ironsieve.server.draft;

import static org.assertj.core.api.Assertions.assertThat;

import io.smallrye.mutiny.subscription.MultiSubscriber;
import jakarta.ws.rs.sse.OutboundSseEvent;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.Flow;
import org.jboss.resteasy.reactive.server.jaxrs.SseImpl;
import org.junit.jupiter.api.Test;

/** Event streams whose readers do not keep up. */
class DraftEventsTest {
  private static final long DRAFT = 1;
  private static final int MANY = 1000;

  private final DraftEvents events = new DraftEvents();

  /** A reader that asks for so many events at first, and for no more. */
  private static final class Reader implements MultiSubscriber<OutboundSseEvent> {
    private final long wanted;
    private final List<String> names = new ArrayList<>();
    private Throwable cutOff;

    Reader(long wanted) {
      this.wanted = wanted;
    }

    @Override
    public void onSubscribe(Flow.Subscription subscription) {
      subscription.request(wanted);
    }

    @Override
    public void onItem(OutboundSseEvent item) {
      names.add(item.getName());
    }

    @Override
    public void onFailure(Throwable failure) {
      cutOff = failure;
    }

    @Override
    public void onCompletion() {
      throw new AssertionError("a stream does not end by itself");
    }
  }

  private Reader open(String person, long wanted) {
    Reader out = new Reader(wanted);
    events.open(DRAFT, person, new SseImpl()).subscribe().withSubscriber(out);
    return out;
  }

  private static ChangeDocument change(int version) {
    return new ChangeDocument(version, "edit", "Ann", "ann", "", null, null, null, null);
  }

  @Test
  void aReaderThatDoesNotKeepUpIsCutOffAndNobodyElseNotices() {
    Reader quick = open("Ann", Long.MAX_VALUE);
    Reader dead = open("Ben", 0);
    Reader slow = open("Cleo", 5);
    for (int i = 0; i < MANY; i++) {
      events.changed(DRAFT, change(i));
    }
    assertThat(quick.names.stream().filter("change"::equals)).hasSize(MANY);
    assertThat(quick.cutOff).isNull();
    assertThat(dead.cutOff).isNotNull();
    assertThat(dead.names).isEmpty();
    assertThat(slow.cutOff).isNotNull();
    assertThat(slow.names).hasSize(5);
    // The others see these two leave; a reader that returns is like a new one.
    assertThat(quick.names.stream().filter("presence"::equals)).hasSizeBetween(4, 5);
    Reader again = open("Ben", Long.MAX_VALUE);
    events.changed(DRAFT, change(MANY));
    assertThat(again.names).containsExactly("presence", "change");
  }
}
