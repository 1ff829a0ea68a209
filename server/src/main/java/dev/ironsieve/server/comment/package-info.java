/** Comments on the rules of a draft before it is published, which stay with the revision. */
package dev.ironsieve.server.comment;
