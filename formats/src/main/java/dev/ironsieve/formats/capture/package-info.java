/**
 * Captured packets: reads pcap and pcapng files into connections with the first bytes of either
 * side. Bytes from the wire never throw; a file that is no capture gets an error with its place.
 */
package dev.ironsieve.formats.capture;
