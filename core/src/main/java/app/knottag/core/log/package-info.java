/**
 * What may be written on record, and what must not.
 *
 * <p>May use: reading.
 */
package app.knottag.core.log;
