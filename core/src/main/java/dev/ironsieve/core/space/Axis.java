package dev.ironsieve.core.space;

/** One dimension of the space: a line of values, grouped into classes that no rule tells apart. */
public sealed interface Axis permits EndpointAxis, NumberAxis {
  /** Number of classes; they are 0 to classes - 1. */
  int classes();
}
