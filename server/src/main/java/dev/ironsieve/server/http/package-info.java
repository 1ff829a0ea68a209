/** Handling of every request: errors as RFC 9457 problems, headers, the page of the web app. */
package dev.ironsieve.server.http;
