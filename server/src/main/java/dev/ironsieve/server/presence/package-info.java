/** Who is signed in where, as network gear tells it by RADIUS or others by REST. */
package dev.ironsieve.server.presence;
