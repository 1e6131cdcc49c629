package app.knottag.core.mail;

/** How large scanned pages are, and how many go into one mail. Sizes in MB of 10^6 bytes. */
final class ScanSize {

    /** Bytes that a line of 76 characters with its end carries in base64 (RFC 2045, 6.8): 57 bytes become 78. */
    private static final double CARRIED = 57.0 / 78;

    /** What the text of the mail and its headers take, MB. */
    private static final double ENVELOPE = 0.01;

    private static final double MILLIMETRES_PER_INCH = 25.4;

    private ScanSize() {}

    /**
     * Returns the size of one page.
     *
     * @param widthMillimetres of the paper
     * @param heightMillimetres of the paper
     * @param dotsPerInch both ways
     * @param bitsPerDot 1 for black and white, 8 for grey, 24 for colour
     * @param compression how many times smaller the file is than its dots
     */
    public static double page(
            double widthMillimetres,
            double heightMillimetres,
            double dotsPerInch,
            double bitsPerDot,
            double compression) {
        double dots = widthMillimetres
                * heightMillimetres
                * dotsPerInch
                * dotsPerInch
                / MILLIMETRES_PER_INCH
                / MILLIMETRES_PER_INCH;
        return dots * bitsPerDot / 8 / compression / 1e6;
    }

    /** Returns how large an attachment may be that goes through a limit on the whole mail; three quarters, less the line ends. */
    public static double largestAttachment(double limit) {
        return Math.max(0, (limit - ENVELOPE) * CARRIED);
    }

    /** Returns how large a mail with this attachment is. */
    public static double mail(double attachment) {
        return attachment / CARRIED + ENVELOPE;
    }

    /** Returns the most pages of this size that go through; 0 when not even one does. */
    public static int pages(double limit, double page) {
        return (int) Math.floor(largestAttachment(limit) / page + 1e-9);
    }
}
