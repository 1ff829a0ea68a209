package dev.ironsieve.server.rulebase;

/** The row of a rulebase, with its newest revision. */
record StoredRulebase(long id, String name, int revision) {}
