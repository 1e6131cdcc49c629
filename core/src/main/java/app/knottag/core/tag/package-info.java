/**
 * Codes for the tags that hang on the devices.
 *
 * <p>May use: nothing.
 */
package app.knottag.core.tag;
