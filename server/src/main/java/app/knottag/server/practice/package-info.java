/**
 * Cases to practise on over HTTP, and how somebody did at them. Start at {@link app.knottag.server.practice.Practice}.
 *
 * <p>May use: web.
 */
package app.knottag.server.practice;
