/** Lists from outside: fetched or uploaded, kept in editions, held back where that is wise. */
package dev.ironsieve.server.feed;
