package dev.ironsieve.server.demo;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;

/** Files of the demo that come with the server. */
final class DemoFile {
  private DemoFile() {}

  static byte[] bytes(String name) {
    try (InputStream in = DemoFile.class.getResourceAsStream(name)) {
      return in.readAllBytes();
    } catch (IOException e) {
      throw new UncheckedIOException(name, e);
    }
  }
}
