package app.knottag.core.visit;

/** Something of which there is so much at a time, and what is taken of it when. */
final class Capacity {

    private final int limit;
    private int[] from = new int[8];
    private int[] until = new int[8];
    private int[] amount = new int[8];
    private int size;

    Capacity(int limit) {
        this.limit = limit;
    }

    /** Returns the first minute from the given one at which so much is free for so many minutes. */
    int earliest(int at, int minutes, int wanted) {
        if (wanted == 0 || minutes == 0) return at;
        int start = at;
        while (!fits(start, minutes, wanted)) start = nextEnd(start);
        return start;
    }

    private boolean fits(int start, int minutes, int wanted) {
        if (taken(start) + wanted > limit) return false;
        for (int i = 0; i < size; i++)
            if (from[i] > start && from[i] < start + minutes && taken(from[i]) + wanted > limit) return false;
        return true;
    }

    private int taken(int minute) {
        int sum = 0;
        for (int i = 0; i < size; i++) if (from[i] <= minute && minute < until[i]) sum += amount[i];
        return sum;
    }

    private int nextEnd(int after) {
        int next = Integer.MAX_VALUE;
        for (int i = 0; i < size; i++) if (until[i] > after && until[i] < next) next = until[i];
        return next;
    }

    void take(int start, int minutes, int wanted) {
        if (wanted == 0 || minutes == 0) return;
        if (size == from.length) {
            from = java.util.Arrays.copyOf(from, size * 2);
            until = java.util.Arrays.copyOf(until, size * 2);
            amount = java.util.Arrays.copyOf(amount, size * 2);
        }
        from[size] = start;
        until[size] = start + minutes;
        amount[size++] = wanted;
    }
}
