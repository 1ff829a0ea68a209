package dev.ironsieve.server.draft;

import dev.ironsieve.core.analysis.LiveAnalysis;
import java.time.LocalDate;
import java.util.HashSet;
import java.util.Set;
import java.util.concurrent.CancellationException;
import java.util.concurrent.locks.ReentrantLock;
import java.util.function.Function;

/**
 * The analysis that answers a draft's questions. It catches up with the edits at the next question,
 * so that no edit waits for a question; questions wait for each other.
 */
final class QuestionIndex {
  /** One consistent version of the draft. */
  record Asked(LiveDraft.State state, LiveAnalysis analysis) {}

  private final LocalDate day;
  private final ReentrantLock asking = new ReentrantLock();
  private LiveAnalysis analysis; // guarded by asking; null after it failed to follow
  private LiveDraft.State seen; // of the analysis
  private LiveDraft.State newest; // guarded by this
  private Set<String> moved = new HashSet<>(); // rules that the changes since may have moved

  QuestionIndex(LiveDraft.State state, LiveAnalysis analysis, LocalDate day) {
    this.day = day;
    this.analysis = analysis;
    seen = state;
    newest = state;
  }

  /** Notes a newer state. */
  synchronized void follow(LiveDraft.State state, Set<String> moved) {
    newest = state;
    this.moved.addAll(moved);
  }

  /**
   * Answers a question.
   *
   * @throws CancellationException if the thread is interrupted
   */
  <T> T ask(Function<Asked, T> question) {
    try {
      asking.lockInterruptibly();
    } catch (InterruptedException e) {
      throw new CancellationException("while waiting for another question");
    }
    try {
      catchUp();
      return question.apply(new Asked(seen, analysis));
    } finally {
      asking.unlock();
    }
  }

  private void catchUp() {
    LiveDraft.State next;
    Set<String> ids;
    synchronized (this) {
      next = newest;
      ids = moved;
      moved = new HashSet<>();
    }
    if (next == seen && analysis != null) {
      return;
    }
    LiveAnalysis following = analysis;
    analysis = null; // if something throws half way, the next question starts anew
    if (following == null) {
      following = new LiveAnalysis(next.rulebase(), day);
    } else {
      following.update(next.rulebase(), ids);
    }
    analysis = following;
    seen = next;
  }
}
