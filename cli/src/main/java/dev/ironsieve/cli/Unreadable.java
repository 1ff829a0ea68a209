package dev.ironsieve.cli;

/** Input that cannot be taken, with a message for the person who gave it. */
final class Unreadable extends RuntimeException {
  Unreadable(String message) {
    super(message);
  }
}
