/**
 * Captured packets: pcap and pcapng files, taken apart into connections with the first bytes of
 * either side. Bytes from the wire never throw; a file that is no capture is told with its place.
 */
package dev.ironsieve.formats.capture;
