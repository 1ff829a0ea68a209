package dev.ironsieve.server.gateway;

import org.eclipse.microprofile.openapi.annotations.media.Schema;

/** The request to add a gateway to a rulebase. */
public record NewGateway(@Schema(required = true) String name) {}
