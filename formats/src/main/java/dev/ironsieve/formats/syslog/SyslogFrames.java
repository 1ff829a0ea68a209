package dev.ironsieve.formats.syslog;

import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.function.Consumer;

/**
 * Splits the bytes of a TCP connection into syslog messages (RFC 6587): by octet counting (section
 * 3.4.1, {@code 5 hello}) if a message begins with a number and a space, else one message a line
 * (section 3.4.2). Memory is bounded by the longest message. Not safe for several threads.
 */
public final class SyslogFrames {
  private static final int MOST_DIGITS = 5;

  private final Consumer<String> messages;
  private final Consumer<String> faults;
  private byte[] kept = new byte[1024]; // of an unfinished message
  private int size;
  private int left = -1; // bytes of a counted message that are to come; -1 between messages
  private long skipped; // bytes of a message that is too long which are still to come
  private boolean skippingLine;

  /**
   * @param messages takes each message
   * @param faults takes a sentence for each that is dropped
   */
  public SyslogFrames(Consumer<String> messages, Consumer<String> faults) {
    this.messages = messages;
    this.faults = faults;
  }

  /** Takes the next bytes of the connection. O(bytes). */
  public void add(byte[] bytes) {
    for (byte b : bytes) {
      add(b);
    }
  }

  private void add(byte b) {
    if (skipped > 0) {
      skipped--;
    } else if (skippingLine) {
      skippingLine = b != '\n';
    } else if (left > 0) {
      keep(b);
      left--;
      if (left == 0) {
        deliver();
      }
    } else if (size == 0 && (b == '\n' || b == '\r' || b == 0)) {
      return; // between messages
    } else if (b == '\n') {
      deliver();
    } else if (b == ' ' && isCount()) {
      count();
    } else if (size >= SyslogMessage.MAX_BYTES) {
      faults.accept("A message is longer than " + SyslogMessage.MAX_BYTES + " bytes.");
      size = 0;
      skippingLine = true;
    } else {
      keep(b);
    }
  }

  private boolean isCount() {
    if (size == 0 || size > 2 * MOST_DIGITS) {
      return false;
    }
    for (int i = 0; i < size; i++) {
      if (kept[i] < '0' || kept[i] > '9') {
        return false;
      }
    }
    return true;
  }

  private void count() {
    long length = Long.parseLong(new String(kept, 0, size, StandardCharsets.US_ASCII));
    size = 0;
    if (length > SyslogMessage.MAX_BYTES) {
      faults.accept(
          "A message of %d bytes is longer than %d.".formatted(length, SyslogMessage.MAX_BYTES));
      skipped = length;
    } else if (length > 0) {
      left = (int) length;
    }
  }

  private void keep(byte b) {
    if (size == kept.length) {
      kept = Arrays.copyOf(kept, 2 * size);
    }
    kept[size++] = b;
  }

  private void deliver() {
    left = -1;
    int end = size > 0 && kept[size - 1] == '\r' ? size - 1 : size;
    String message = new String(kept, 0, end, StandardCharsets.UTF_8);
    size = 0;
    messages.accept(message);
  }
}
