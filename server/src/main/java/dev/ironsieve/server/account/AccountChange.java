package dev.ironsieve.server.account;

/** What is to change; what is left out stays. */
public record AccountChange(String role, Boolean disabled, String password) {}
