package dev.ironsieve.server.directory;

/**
 * Thrown if the directory could not be read. The message says at which step, and what came instead.
 */
public class DirectoryFault extends Exception {
  private static final long serialVersionUID = 1;

  DirectoryFault(String message) {
    super(message);
  }

  DirectoryFault(String message, Throwable cause) {
    super(message, cause);
  }
}
