/**
 * The machine that keeps the records: its disk, its clock, its backups. Start at
 * {@link app.knottag.server.machine.MachineWatch}.
 *
 * <p>May use: log, record, web.
 */
@NullMarked
package app.knottag.server.machine;

import org.jspecify.annotations.NullMarked;
