/**
 * Drives and how they are joined: what is usable, what is lost to mismatch, which failures it outlives, how long it takes. Start
 * at {@link app.knottag.core.storage.DrivesSheet}. Types are immutable.
 *
 * <p>May use: figure, reading.
 */
package app.knottag.core.storage;
