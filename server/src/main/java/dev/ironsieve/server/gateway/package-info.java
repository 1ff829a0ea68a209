/** Gateways: enrolment, the revision that each has to follow, and what each reports. */
package dev.ironsieve.server.gateway;
