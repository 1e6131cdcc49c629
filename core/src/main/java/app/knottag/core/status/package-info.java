/**
 * The state of anything that is to be done, as every picture draws it.
 *
 * <p>May use: nothing.
 */
package app.knottag.core.status;
