/** Brindlemere Ferries: the made-up company that the demo shows. */
package dev.ironsieve.server.demo;
