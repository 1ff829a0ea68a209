package dev.ironsieve.cli;

/** Thrown if input cannot be read; the message is for the user. */
final class Unreadable extends RuntimeException {
  Unreadable(String message) {
    super(message);
  }
}
