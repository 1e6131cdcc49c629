/**
 * Figures that people key in with their units, and the form in which a worksheet asks, judges and draws. Start at
 * {@link app.knottag.core.figure.Worksheet}. Types are immutable.
 *
 * <p>May use: reading.
 */
package app.knottag.core.figure;
