package app.knottag.core.intake;

import app.knottag.core.intake.Draft.Parsed;
import app.knottag.core.intake.Draft.Remark;
import app.knottag.core.intake.Recognised.Scan;
import app.knottag.core.intake.Recognised.Table;
import app.knottag.core.intake.Row.State;
import java.time.Instant;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/** Makes drafts of a list that a machine printed, as {@link TextReader} recognises it. */
public final class Listing {

    private static final Set<State> THERE = EnumSet.of(State.SEEN, State.OLD, State.LEASED);

    private Listing() {}

    /** Reads a list; leases whose end is past at this moment are left out. */
    public static Parsed read(String text, Instant now) {
        var read = TextReader.read(text, now);
        if (read instanceof Table table && table.form() != Form.SWITCH)
            return new Parsed(
                    Optional.of(table.form()), drafts(table.rows(), table.sure()), table.leftOut(), table.problems());
        if (read instanceof Scan scan)
            return new Parsed(Optional.of(Form.SCAN), drafts(scan.hosts(), true), scan.leftOut(), List.of());
        if (read.form() == Form.UNKNOWN) return new Parsed(Optional.empty(), List.of(), silent(text), List.of());
        return Parsed.refused(
                read.form() == Form.SWITCH
                        ? "This is the MAC table of a switch: there are no addresses in it. Bring in a neighbour table "
                                + "or a lease list; paste this one at an endpoint, to see its port."
                        : "This is " + read.form().words() + ", no list. Paste it at the endpoint that it is about.");
    }

    private static List<Remark> silent(String text) {
        var remarks = new ArrayList<Remark>();
        String[] lines = text.split("\n", -1);
        for (int i = 0; i < lines.length; i++) {
            String line = lines[i].strip();
            if (!line.isEmpty() && !line.startsWith("#"))
                remarks.add(new Remark(i + 1L, "", "Neither an address nor a MAC in “" + Tables.cut(line) + "”."));
        }
        return remarks;
    }

    private static List<Draft> drafts(List<Row> rows, boolean sure) {
        var drafts = new ArrayList<Draft>();
        for (var row : rows)
            if (THERE.contains(row.state()) || row.state() == State.WRITTEN)
                drafts.add(Draft.of(
                        row.line(),
                        row.address(),
                        row.mac(),
                        row.name(),
                        row.leaseEnds(),
                        sure && row.sure() && THERE.contains(row.state())));
        return drafts;
    }
}
