/**
 * Days and times as a site has them and writes them.
 *
 * <p>May use: reading.
 */
@org.jspecify.annotations.NullMarked
package app.knottag.core.time;
