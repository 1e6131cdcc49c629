package app.knottag.core.gear;

import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * What a piece of gear answered, column by column, in the order in which it was told.
 *
 * @param cut columns that were not read to the end: it was too slow, told too much or went backwards
 */
public record Walked(Map<GearColumn, List<Cell>> columns, Set<GearColumn> cut) {

    /**
     * One cell.
     *
     * @param index what follows the column's own identifier; each 0..4294967295
     * @param number value of a number, 0 for other types
     * @param octets value of a string of octets, empty for other types
     */
    public record Cell(List<Long> index, long number, byte[] octets) {

        public static Cell of(List<Long> index, long number) {
            return new Cell(index, number, new byte[0]);
        }

        public static Cell of(List<Long> index, byte[] octets) {
            return new Cell(index, 0, octets);
        }

        /** Returns the octets as text; what is no UTF-8 shows as such. */
        public String text() {
            return new String(octets, StandardCharsets.UTF_8).strip();
        }
    }

    /** Returns the cells of a column, none when it has no such column. */
    public List<Cell> of(GearColumn column) {
        return columns.getOrDefault(column, List.of());
    }
}
