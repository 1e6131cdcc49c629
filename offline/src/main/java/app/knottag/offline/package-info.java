/**
 * Core's readers for the page itself, compiled to JavaScript, so that a slip is found where no server can be reached. Start at
 * {@link app.knottag.offline.Readers}; no rule of the job stands here.
 */
package app.knottag.offline;
