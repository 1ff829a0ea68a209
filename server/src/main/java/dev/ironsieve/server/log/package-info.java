/** The log: records and hits that gateways report by syslog, their storage, and questions to it. */
package dev.ironsieve.server.log;
