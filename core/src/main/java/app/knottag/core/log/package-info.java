/**
 * What may be written on record, and what must not.
 */
package app.knottag.core.log;
