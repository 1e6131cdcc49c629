/**
 * Worksheets over HTTP: looked at, tried, kept for an endpoint or a site. Start at {@link app.knottag.server.worksheet.Sheets}.
 *
 * <p>May use: change, db, log, record, web.
 */
package app.knottag.server.worksheet;
