/**
 * What fits into the room, the line and the day: leads, heat, the mode of a hub, downloads of several at once. Start at
 * {@link app.knottag.core.place.RunSheet}. Types are immutable.
 *
 * <p>May use: figure.
 */
package app.knottag.core.place;
