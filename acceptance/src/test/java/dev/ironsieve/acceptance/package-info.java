/** The whole product, driven as its users drive it: the real interface on a real server. */
package dev.ironsieve.acceptance;
