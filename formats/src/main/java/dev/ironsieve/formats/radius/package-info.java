/** RADIUS accounting: who is signed in where, as network gear tells it (RFC 2866). */
package dev.ironsieve.formats.radius;
