package dev.ironsieve.server.rulebase;

record StoredRulebase(long id, String name, int revision) {}
