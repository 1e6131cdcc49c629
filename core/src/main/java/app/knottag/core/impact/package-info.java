/**
 * What a change will touch: everything that rests on it, in which order to mend it, what to prove again. Start at
 * {@link app.knottag.core.impact.Impact}.
 *
 * <p>May use: address, kind, plan, reading.
 */
package app.knottag.core.impact;
