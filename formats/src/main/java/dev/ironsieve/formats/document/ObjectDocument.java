package dev.ironsieve.formats.document;

import java.util.List;

/**
 * A zone, an address object or a service object.
 *
 * @param members networks of a zone (none: any address can occur in it); literals and names of an
 *     address or service object
 */
public record ObjectDocument(String name, List<String> members, String note) {}
