/**
 * The stand-in gateway: enrols at a server, follows the newest revision of its rulebase, and keeps
 * deciding with the last good one while the server is away.
 */
package dev.ironsieve.gateway;
