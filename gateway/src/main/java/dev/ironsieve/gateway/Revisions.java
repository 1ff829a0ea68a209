package dev.ironsieve.gateway;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.channels.FileLock;
import java.nio.channels.OverlappingFileLockException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * The folder of a gateway: its secret, the documents of revisions by their digest, and the name of
 * the one in force. Each file is written beside, forced to the disk and renamed, so that after a
 * crash at any instant exactly one revision is in force, or none yet. One process uses a folder.
 */
final class Revisions implements AutoCloseable {
  private static final String SECRET = "secret";
  private static final String IN_FORCE = "in-force";
  private static final Pattern NAMED = Pattern.compile("([0-9]{1,9}) ([0-9a-f]{64})\n");

  /**
   * A revision.
   *
   * @param digest SHA-256 of its document, hexadecimal
   */
  record Revision(int number, String digest) {}

  private final Path folder;
  private final FileChannel lock;

  private Revisions(Path folder, FileChannel lock) {
    this.folder = folder;
    this.lock = lock;
  }

  /**
   * @throws IOException if the folder cannot be used, or another process uses it
   */
  static Revisions open(Path folder) throws IOException {
    Files.createDirectories(folder);
    FileChannel channel =
        FileChannel.open(
            folder.resolve("lock"), StandardOpenOption.CREATE, StandardOpenOption.WRITE);
    if (!isLocked(channel)) {
      channel.close();
      throw new IOException("another gateway uses the folder " + folder);
    }
    return new Revisions(folder, channel);
  }

  private static boolean isLocked(FileChannel channel) throws IOException {
    try {
      FileLock lock = channel.tryLock();
      return lock != null;
    } catch (OverlappingFileLockException e) {
      return false;
    }
  }

  Optional<String> secret() throws IOException {
    return read(SECRET).map(String::strip);
  }

  void keepSecret(String secret) throws IOException {
    write(SECRET, secret + "\n");
  }

  /** The revision in force, if there is one. */
  Optional<Revision> inForce() throws IOException {
    Optional<String> named = read(IN_FORCE);
    if (named.isEmpty()) {
      return Optional.empty();
    }
    Matcher matcher = NAMED.matcher(named.get());
    if (!matcher.matches()) {
      throw new IOException(
          "%s: expected a number and a digest, found \"%s\""
              .formatted(folder.resolve(IN_FORCE), named.get().strip()));
    }
    return Optional.of(new Revision(Integer.parseInt(matcher.group(1)), matcher.group(2)));
  }

  /** The document of a revision that was stored. */
  byte[] document(Revision revision) throws IOException {
    return Files.readAllBytes(folder.resolve(revision.digest() + ".json"));
  }

  /** Stores a document beside those that are there. */
  void store(Revision revision, byte[] document) throws IOException {
    write(revision.digest() + ".json", document);
  }

  /** Makes a stored revision the one in force, and deletes all older ones but the last. */
  void switchTo(Revision revision) throws IOException {
    Optional<Revision> before = inForce();
    write(IN_FORCE, revision.number() + " " + revision.digest() + "\n");
    try (var files = Files.newDirectoryStream(folder, "*.json")) {
      for (Path file : files) {
        String digest = file.getFileName().toString().replace(".json", "");
        boolean kept =
            digest.equals(revision.digest())
                || before.filter(last -> last.digest().equals(digest)).isPresent();
        if (!kept) {
          Files.delete(file);
        }
      }
    }
  }

  private Optional<String> read(String name) throws IOException {
    Path file = folder.resolve(name);
    return Files.exists(file) ? Optional.of(Files.readString(file)) : Optional.empty();
  }

  private void write(String name, String text) throws IOException {
    write(name, text.getBytes(StandardCharsets.UTF_8));
  }

  private void write(String name, byte[] content) throws IOException {
    Path beside = folder.resolve(name + ".new");
    Files.deleteIfExists(beside);
    try (FileChannel channel =
        FileChannel.open(
            Files.createFile(
                beside,
                PosixFilePermissions.asFileAttribute(PosixFilePermissions.fromString("rw-------"))),
            StandardOpenOption.WRITE)) {
      ByteBuffer left = ByteBuffer.wrap(content);
      while (left.hasRemaining()) {
        channel.write(left);
      }
      channel.force(true);
    }
    Files.move(
        beside,
        folder.resolve(name),
        StandardCopyOption.ATOMIC_MOVE,
        StandardCopyOption.REPLACE_EXISTING);
    try (FileChannel directory = FileChannel.open(folder, StandardOpenOption.READ)) {
      directory.force(true);
    }
  }

  @Override
  public void close() throws IOException {
    lock.close();
  }
}
