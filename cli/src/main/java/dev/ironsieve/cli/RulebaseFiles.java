package dev.ironsieve.cli;

import dev.ironsieve.core.rulebase.Rulebase;
import dev.ironsieve.formats.Fault;
import dev.ironsieve.formats.InvalidDocument;
import dev.ironsieve.formats.Json;
import dev.ironsieve.formats.document.RulebaseDocument;
import dev.ironsieve.formats.document.ToModel;
import dev.ironsieve.formats.rfc8519.AclReader;
import dev.ironsieve.formats.ruletext.RuleTextFile;
import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.util.List;

/** Reads rulebases from files: our own document, RFC 8519, or rules as text. */
final class RulebaseFiles {
  private RulebaseFiles() {}

  /**
   * Reads a rulebase; {@code -} stands for standard input. Remarks of the reader go to {@code err}.
   */
  static Rulebase read(Path file, PrintWriter err) {
    return read(file, null, err);
  }

  /**
   * The same.
   *
   * @param objects file of the rulebase whose objects rules in a text name; null for none
   */
  static Rulebase read(Path file, Path objects, PrintWriter err) {
    byte[] json = bytes(file);
    try {
      if (RuleTextFile.looksLikeOne(json)) {
        Rulebase named = objects == null ? Rulebase.empty("none") : read(objects, null, err);
        return RuleTextFile.read(json, title(file), named);
      }
      if (!AclReader.looksLikeOne(json)) {
        return ToModel.rulebase(Json.read(json, RulebaseDocument.class));
      }
      AclReader.Imported imported = AclReader.read(json, title(file));
      imported.notes().forEach(note -> err.println(file + ": " + note));
      return imported.rulebase();
    } catch (InvalidDocument e) {
      List<Fault> faults =
          e.faults().stream()
              .map(f -> new Fault(file + ": " + f.path(), f.expected(), f.found()))
              .toList();
      throw new InvalidDocument(faults);
    }
  }

  private static String title(Path file) {
    String name = file.getFileName().toString().replaceAll("\\.(json|txt)$", "");
    return name.equals("-") ? "standard input" : name;
  }

  private static byte[] bytes(Path file) {
    try {
      if (file.toString().equals("-")) {
        return System.in.readNBytes(Json.MAX_BYTES + 1);
      }
      if (Files.size(file) > Json.MAX_BYTES) {
        throw new Unreadable(file + ": expected at most " + Json.MAX_BYTES + " bytes, found more");
      }
      return Files.readAllBytes(file);
    } catch (NoSuchFileException e) {
      throw new Unreadable(file + ": expected a file, found nothing");
    } catch (IOException e) {
      throw new Unreadable(file + ": cannot be read: " + e.getMessage());
    }
  }
}
