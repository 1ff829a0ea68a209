package dev.ironsieve.server.gateway;

import org.eclipse.microprofile.openapi.annotations.media.Schema;

/** The request of a gateway to enrol. */
public record Enrolment(@Schema(required = true) String token) {}
