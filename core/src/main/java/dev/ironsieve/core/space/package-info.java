/**
 * The space of all feasible connections, cut into classes that no rule tells apart: a dimension for
 * each end, for the service and for the source port; rules become unions of boxes over classes.
 *
 * <p>A further coordinate is a further {@link dev.ironsieve.core.space.Axis}; nothing behind this
 * package counts on how many there are.
 */
package dev.ironsieve.core.space;
