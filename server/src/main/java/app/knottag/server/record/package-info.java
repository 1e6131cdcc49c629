/**
 * What stands on record: rows and stores of sites, segments, endpoints, interfaces, gear, steps, rounds and registrations, and
 * what is loaded of them as core's types. Start at {@link app.knottag.server.record.EndpointStore}.
 *
 * <p>May use: db, log, web.
 */
package app.knottag.server.record;
