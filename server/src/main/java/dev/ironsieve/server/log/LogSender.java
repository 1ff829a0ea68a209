package dev.ironsieve.server.log;

import org.eclipse.microprofile.openapi.annotations.media.Schema;

/**
 * What one address sent by syslog and IPFIX since the server's start.
 *
 * @param records taken to be stored
 * @param other valid syslog that is no record of a gateway
 * @param malformed no valid syslog or IPFIX, or a record with a wrong part
 * @param unknownGateway records of a gateway that is not known or was revoked
 * @param overflow dropped since too many waited
 * @param refused by the database
 * @param flows that were read
 * @param lostFlows that never came, by the sequence numbers
 * @param unreadFlows messages with flows that came before their template
 * @param lastFault the last fault, in a sentence; left out if there was none
 * @param lastAt when the last message came, ISO 8601
 */
public record LogSender(
    @Schema(required = true) String address,
    @Schema(required = true) long records,
    @Schema(required = true) long other,
    @Schema(required = true) long malformed,
    @Schema(required = true) long unknownGateway,
    @Schema(required = true) long overflow,
    @Schema(required = true) long refused,
    @Schema(required = true) long flows,
    @Schema(required = true) long lostFlows,
    @Schema(required = true) long unreadFlows,
    String lastFault,
    @Schema(required = true) String lastAt) {}
