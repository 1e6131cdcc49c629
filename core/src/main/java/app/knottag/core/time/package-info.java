/** Days and times as a site has them and writes them. */
@org.jspecify.annotations.NullMarked
package app.knottag.core.time;
