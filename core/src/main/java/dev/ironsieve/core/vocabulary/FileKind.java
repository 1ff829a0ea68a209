package dev.ironsieve.core.vocabulary;

import dev.ironsieve.core.model.Names;
import java.util.List;

/**
 * One kind of file, and the marks by which files are classified.
 *
 * @param family the set of kinds that it belongs to
 * @param beginnings alternative first bytes, in the hexadecimal notation of signatures; none for
 *     kinds that have only names
 * @param begins whether every such file begins so, or like {@code within}
 * @param within a more general kind with the same first bytes, which a name or media type refines;
 *     null for none
 * @param endings of file names, in lower case, without the dot
 * @param mediaTypes its media types (RFC 6838), in lower case
 */
public record FileKind(
    String name,
    String family,
    List<String> beginnings,
    boolean begins,
    String within,
    List<String> endings,
    List<String> mediaTypes) {
  public FileKind {
    Names.checkTitle("file kind", name);
    Names.checkTitle("family", family);
    beginnings = List.copyOf(beginnings);
    endings = List.copyOf(endings);
    mediaTypes = List.copyOf(mediaTypes);
  }
}
