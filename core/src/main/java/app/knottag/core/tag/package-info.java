/**
 * Codes for the tags that hang on the devices.
 */
package app.knottag.core.tag;
