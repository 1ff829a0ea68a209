package dev.ironsieve.server.rulebase;

/** A row of the list; {@code common} is null for a rulebase that is not below a common one. */
record StoredRulebase(long id, String name, String kind, String common, int revision) {}
