/**
 * The state of anything that is to be done, as every picture draws it.
 */
package app.knottag.core.knot;
