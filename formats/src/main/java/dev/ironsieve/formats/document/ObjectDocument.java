package dev.ironsieve.formats.document;

import java.util.List;

/**
 * A zone, an address object, a service object, a host list or a schedule.
 *
 * @param members networks of a zone (none: any address can occur in it); literals and names of an
 *     address or service object; hosts of a host list; times of a schedule
 */
public record ObjectDocument(String name, List<String> members, String note) {}
