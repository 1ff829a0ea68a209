package dev.ironsieve.bench.peers;

/** Asked about one rule after the other, from the first on. */
public interface Peer extends AutoCloseable {
  /** What a peer answers. */
  enum Answer {
    DECIDES,
    DOES_NOT,
    /** It needs more memory than it may take. From then on it answers nothing else. */
    GAVE_UP
  }

  /** Whether the next rule decides any connection. */
  Answer next();

  @Override
  default void close() {}
}
