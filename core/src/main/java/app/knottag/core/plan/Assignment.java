package app.knottag.core.plan;

import java.util.Arrays;

/**
 * Gives each row a column of its own so that the sum of the costs is least: shortest augmenting paths after Kuhn,
 * Munkres and Jonker, O(rows² · columns). Own code because
 * the kept library that was tried wants a square, complete matrix and alone took longer for two hundred requests than
 * the whole placement takes here.
 */
final class Assignment {

    /** Cost of a pair that cannot be; such a pair is only chosen when a row cannot be served at all. */
    static final long NEVER = 1L << 40;

    private Assignment() {}

    /**
     * Returns the column of each row, or -1 where a row gets none. Needs at least as many columns as rows.
     */
    static int[] solve(long[][] cost, int columns) {
        int rows = cost.length;
        long[] rowPrice = new long[rows + 1], columnPrice = new long[columns + 1];
        int[] rowOf = new int[columns + 1];
        for (int row = 1; row <= rows; row++) augment(cost, row, rowPrice, columnPrice, rowOf);
        int[] columnOf = new int[rows];
        Arrays.fill(columnOf, -1);
        for (int c = 1; c <= columns; c++)
            if (rowOf[c] > 0 && cost[rowOf[c] - 1][c - 1] < NEVER) columnOf[rowOf[c] - 1] = c - 1;
        return columnOf;
    }

    /** Finds the cheapest way to serve one more row, moving rows served before where that helps. */
    private static void augment(long[][] cost, int row, long[] rowPrice, long[] columnPrice, int[] rowOf) {
        int columns = rowOf.length - 1, column = 0;
        int[] cameFrom = new int[columns + 1];
        long[] least = new long[columns + 1];
        boolean[] used = new boolean[columns + 1];
        Arrays.fill(least, Long.MAX_VALUE);
        rowOf[0] = row;
        do {
            used[column] = true;
            int r = rowOf[column], next = 0;
            long step = Long.MAX_VALUE;
            for (int c = 1; c <= columns; c++) {
                if (used[c]) continue;
                long here = cost[r - 1][c - 1] - rowPrice[r] - columnPrice[c];
                if (here < least[c]) {
                    least[c] = here;
                    cameFrom[c] = column;
                }
                if (least[c] < step) {
                    step = least[c];
                    next = c;
                }
            }
            for (int c = 0; c <= columns; c++)
                if (used[c]) {
                    rowPrice[rowOf[c]] += step;
                    columnPrice[c] -= step;
                } else least[c] -= step;
            column = next;
        } while (rowOf[column] != 0);
        for (; column != 0; column = cameFrom[column]) rowOf[column] = rowOf[cameFrom[column]];
    }
}
