package dev.ironsieve.server.account;

/** The request to change an account; parts left out stay as they are. */
public record AccountChange(String role, Boolean disabled, String password) {}
