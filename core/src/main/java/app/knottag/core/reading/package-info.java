/**
 * What every reader answers: the value, notes about how it was read, findings that speak against it, and the
 * slip of the hand that explains it. Start at {@link app.knottag.core.reading.Reading}. Types are immutable.
 *
 * <p>May use: nothing.
 */
package app.knottag.core.reading;
