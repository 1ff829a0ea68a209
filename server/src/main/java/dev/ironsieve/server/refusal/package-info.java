/** The reasons for which use cases refuse a request. They know nothing of HTTP. */
package dev.ironsieve.server.refusal;
