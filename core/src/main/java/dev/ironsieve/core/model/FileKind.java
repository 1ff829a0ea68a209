package dev.ironsieve.core.model;

import java.util.List;

/**
 * One kind of file, and what it is told by.
 *
 * @param family the set of kinds that it belongs to
 * @param beginnings bytes that such files begin with, one of these, hexadecimal as signatures write
 *     them; none for kinds that are told by name alone
 * @param begins whether every such file begins so, or like {@code within}; what does not, is none
 * @param within the kind that such a file may begin like, whose name or media type tells it then;
 *     null for no such
 * @param endings of file names, in lower case, without the dot
 * @param mediaTypes that HTTP names it by (RFC 6838), in lower case
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
