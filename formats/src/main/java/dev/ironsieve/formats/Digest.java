package dev.ironsieve.formats;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;

/** Computes the digest of immutable content. */
public final class Digest {
  private Digest() {}

  /** The SHA-256 of a text in UTF-8. */
  public static byte[] of(String content) {
    return of(content.getBytes(StandardCharsets.UTF_8));
  }

  /** The SHA-256 of some bytes. */
  public static byte[] of(byte[] content) {
    try {
      return MessageDigest.getInstance("SHA-256").digest(content);
    } catch (NoSuchAlgorithmException e) {
      throw new IllegalStateException("every Java platform has SHA-256", e);
    }
  }
}
