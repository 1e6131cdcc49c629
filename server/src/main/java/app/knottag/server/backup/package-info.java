/**
 * Everything in one file, and back on an empty machine. Programs of their own, run by the script as the owner of the database;
 * the server only reads of them. Start at {@link app.knottag.server.backup.Backup}.
 *
 * <p>May use: nothing.
 */
@NullMarked
package app.knottag.server.backup;

import org.jspecify.annotations.NullMarked;
