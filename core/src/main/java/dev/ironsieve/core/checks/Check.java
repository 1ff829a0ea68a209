package dev.ironsieve.core.checks;

import dev.ironsieve.core.model.Connection;
import dev.ironsieve.core.model.Verdict;

/** A connection and its expected verdict. */
public record Check(Connection connection, Verdict expected) {}
