/**
 * The space of all feasible connections, cut into classes that no rule tells apart: a dimension for
 * each end, for the service, for the source port, and for each vocabulary; rules become unions of
 * boxes over codes of classes. Nothing behind this package counts on how many dimensions there are.
 */
package dev.ironsieve.core.space;
