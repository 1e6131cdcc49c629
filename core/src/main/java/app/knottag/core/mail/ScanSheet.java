package app.knottag.core.mail;

import app.knottag.core.figure.Figures;
import app.knottag.core.figure.Judgement;
import app.knottag.core.figure.Judgement.Draft;
import app.knottag.core.figure.Picture;
import app.knottag.core.figure.Picture.PictureMark;
import app.knottag.core.figure.Picture.Tone;
import app.knottag.core.figure.SheetField;
import app.knottag.core.figure.Unit;
import app.knottag.core.figure.Worksheet;
import java.util.List;

/** Pages and resolution against the size that the mailbox takes. */
public final class ScanSheet implements Worksheet {

    private static final List<Integer> RESOLUTIONS = List.of(600, 400, 300, 200, 150);

    /** What is on the paper, with how much smaller a copier usually makes it. */
    enum Colour {
        BLACK("Black and white", 1, 15),
        GREY("Grey", 8, 12),
        FULL("Colour", 24, 24);

        private final String words;
        private final int bits;
        private final double compression;

        Colour(String words, int bits, double compression) {
            this.words = words;
            this.bits = bits;
            this.compression = compression;
        }
    }

    /** Size of the paper, millimetres (ISO 216; letter 8.5 by 11 inches). */
    enum Paper {
        A4("A4", 210, 297),
        A3("A3", 297, 420),
        A5("A5", 148, 210),
        LETTER("Letter", 215.9, 279.4);

        private final String words;
        private final double width;
        private final double height;

        Paper(String words, double width, double height) {
            this.words = words;
            this.width = width;
            this.height = height;
        }
    }

    @Override
    public String key() {
        return "scan";
    }

    @Override
    public String title() {
        return "How many pages go into a mail";
    }

    @Override
    public String purpose() {
        return "Compares a scan with the limit of the mailbox; in a mail a file grows by more than a third. How well pages shrink depends "
                + "on them: scan one and key in its size to be sure.";
    }

    @Override
    public List<SheetField> fields() {
        return List.of(
                SheetField.figure("limit", "Largest mail that is taken", Unit.MEGABYTE, 0.1, 1000)
                        .usual("20"),
                SheetField.count("pages", "Pages of one scan", 1, 5000).usual("20"),
                SheetField.figure("dpi", "Resolution", Unit.DOTS_PER_INCH, 50, 1200)
                        .usual("300"),
                SheetField.pick("colour", "Colour", Colour.values(), c -> c.words),
                SheetField.pick("paper", "Paper", Paper.values(), p -> p.words),
                SheetField.figure("measured", "Size of one page that was scanned", Unit.MEGABYTE, 0.001, 500)
                        .hint("Scan one, look at its size: truer than any table.")
                        .optional());
    }

    @Override
    public Judgement judge(Figures f) {
        double limit = f.figure("limit"), dpi = f.figure("dpi");
        int pages = f.count("pages");
        double page = f.find("measured").orElseGet(() -> page(f, dpi));
        int most = ScanSize.pages(limit, page);
        double mail = ScanSize.mail(page * pages);
        var draft = new Draft()
                .result(
                        "PAGE",
                        "One page",
                        (f.find("measured").isPresent() ? "" : "about ") + Unit.MEGABYTE.write(page))
                .result("MAIL", "The mail", Unit.MEGABYTE.write(mail) + " of " + Unit.MEGABYTE.write(limit))
                .result("MOST", "Most pages at " + Unit.plain(dpi) + " dpi", String.valueOf(most));
        if (pages > most) draft.stop("TOO_LARGE", "pages", tooLarge(pages, most), less(f, pages, page));
        var row = new Picture.Row("The mail")
                .add(page * pages, "pages", pages > most ? Tone.BAD : Tone.GOOD)
                .add(mail - page * pages, "what mail adds", Tone.WAITS);
        row.add(limit - row.end(), "to spare", Tone.SPARE);
        return draft.draw(new Picture(
                        "Against the limit",
                        Unit.MEGABYTE,
                        row.end(),
                        List.of(row.row()),
                        List.of(new PictureMark(limit, "limit"))))
                .done();
    }

    private static double page(Figures f, double dpi) {
        var colour = f.pick("colour", Colour.class);
        var paper = f.pick("paper", Paper.class);
        return ScanSize.page(paper.width, paper.height, dpi, colour.bits, colour.compression);
    }

    private static String tooLarge(int pages, int most) {
        return most == 0
                ? "Not even one page goes through."
                : "Of " + pages + " pages only " + most
                        + " go through: the provider refuses the mail, and the copier often says nothing.";
    }

    private static String less(Figures f, int pages, double page) {
        double dpi = f.figure("dpi");
        // A page that was measured shrinks with the square of the resolution, as a computed one does.
        for (int lower : RESOLUTIONS)
            if (lower < dpi && ScanSize.pages(f.figure("limit"), page * lower * lower / dpi / dpi) >= pages)
                return "Scan with " + lower + " dpi"
                        + (f.pick("colour", Colour.class) == Colour.FULL ? ", or in grey" : "") + ".";
        return "Split the scan, or scan to the storage box instead.";
    }
}
