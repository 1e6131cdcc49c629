/**
 * The day at a glance, over all sites. Start at {@link app.knottag.server.today.TodayController}.
 *
 * <p>May use: record, web.
 */
@NullMarked
package app.knottag.server.today;

import org.jspecify.annotations.NullMarked;
