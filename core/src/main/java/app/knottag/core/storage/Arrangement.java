package app.knottag.core.storage;

import app.knottag.core.reading.ReadingException;
import java.util.List;

/** How drives are joined, with the sums that follow; sizes in TB of 10^12 bytes. */
enum Arrangement {
    /** Each drive by itself, with its own share. */
    SINGLE("Each by itself", 1, 24),
    /** One after the other as one. */
    JOINED("Joined: one after the other", 2, 24),
    /** In turns over all. */
    STRIPED("Striped: in turns over all", 2, 24),
    /** The same on each. */
    MIRRORED("Mirrored: the same on each", 2, 4),
    /** In turns, with the worth of one drive to rebuild from. */
    PARITY("Parity: any one may fail", 3, 24),
    /** In turns, with the worth of two drives to rebuild from. */
    DOUBLE_PARITY("Double parity: any two may fail", 4, 24);

    private static final double BITS_PER_TB = 8e12;

    private final String words;
    private final int fewest;
    private final int most;

    Arrangement(String words, int fewest, int most) {
        this.words = words;
        this.fewest = fewest;
        this.most = most;
    }

    /** Returns how it is said on a screen. */
    public String words() {
        return words;
    }

    /** Returns the fewest drives that it takes. */
    public int fewest() {
        return fewest;
    }

    /** Returns the most drives that it takes here. */
    public int most() {
        return most;
    }

    /** Returns how much of each drive is used, TB: all of it, or as much as the smallest has. */
    public double usedOfEach(List<Double> drives, double drive) {
        return this == SINGLE || this == JOINED ? drive : smallest(drives);
    }

    /**
     * Returns what can be stored, TB.
     *
     * @throws ReadingException if there are fewer or more drives than it takes
     */
    public double usable(List<Double> drives) {
        if (drives.size() < fewest || drives.size() > most)
            throw new ReadingException(
                    words + " takes " + fewest + " to " + most + " drives; there are " + drives.size() + ".");
        double small = smallest(drives);
        return switch (this) {
            case SINGLE, JOINED ->
                drives.stream().mapToDouble(Double::doubleValue).sum();
            case STRIPED -> small * drives.size();
            case MIRRORED -> small;
            case PARITY -> small * (drives.size() - 1);
            case DOUBLE_PARITY -> small * (drives.size() - 2);
        };
    }

    /** Returns what nobody can use because the drives differ, TB. */
    public double lost(List<Double> drives) {
        return drives.stream().mapToDouble(d -> d - usedOfEach(drives, d)).sum();
    }

    /** Returns how many drives may fail at the same time, whichever they are, with nothing lost. */
    public int outlives(int drives) {
        return switch (this) {
            case SINGLE, JOINED, STRIPED -> 0;
            case MIRRORED -> drives - 1;
            case PARITY -> 1;
            case DOUBLE_PARITY -> 2;
        };
    }

    /**
     * Returns the hours of one full pass: the drives are written beside one another, so the largest used part counts.
     *
     * @param rate sustained, MB/s of 10^6 bytes
     */
    public double hours(List<Double> drives, double rate) {
        double largest =
                drives.stream().mapToDouble(d -> usedOfEach(drives, d)).max().orElse(0);
        return largest * 1e6 / rate / 3600;
    }

    /**
     * Returns the chance that a rebuild after one failed drive meets a spot that cannot be read, 0..1, when nothing is left to
     * mend it with; 0 where a second copy remains. All that is left is read once.
     *
     * @param oneIn bits read for one that cannot be, as drives' sheets say, such as 1e14
     */
    public double rebuildFails(List<Double> drives, double oneIn) {
        int left = outlives(drives.size());
        if (left != 1) return 0;
        double bits = smallest(drives) * (drives.size() - 1) * BITS_PER_TB;
        return -Math.expm1(-bits / oneIn);
    }

    private static double smallest(List<Double> drives) {
        return drives.stream().mapToDouble(Double::doubleValue).min().orElse(0);
    }
}
