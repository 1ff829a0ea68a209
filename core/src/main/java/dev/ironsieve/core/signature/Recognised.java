package dev.ironsieve.core.signature;

import java.util.List;

/**
 * The application of a recognised connection, with the evidence.
 *
 * @param meant the application, and the signature that holds
 * @param evidence what of the connection fulfils each of its conditions, in words
 * @param others further signatures that hold too but are wider, the narrowest first
 */
public record Recognised(
    Recogniser.Named meant, List<String> evidence, List<Recogniser.Named> others) {}
