/** Common rulebases, and what their rules do in the rulebases below them. */
package dev.ironsieve.server.common;
