package dev.ironsieve.formats;

import java.util.List;
import java.util.stream.Collectors;

/** Thrown if a document cannot be read; has all faults that were found. */
public final class InvalidDocument extends RuntimeException {
  /** Most faults that are collected before reading stops. */
  public static final int MAX_FAULTS = 100;

  private final List<Fault> faults;

  public InvalidDocument(List<Fault> faults) {
    super(faults.stream().map(Fault::toString).collect(Collectors.joining("\n")));
    this.faults = List.copyOf(faults);
  }

  public InvalidDocument(String path, String expected, String found) {
    this(List.of(new Fault(path, expected, found)));
  }

  /** At least one. */
  public List<Fault> faults() {
    return faults;
  }
}
