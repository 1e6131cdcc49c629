package app.knottag.server.log;

import app.knottag.server.log.Log.LogLine;
import app.knottag.server.log.LogStore.ChainedRow;
import app.knottag.server.log.LogStore.CountRow;
import app.knottag.server.log.LogStore.Wanted;
import java.io.IOException;
import java.io.OutputStream;
import java.io.OutputStreamWriter;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Optional;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVPrinter;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.databind.json.JsonMapper;

/** The log as people read it, and as a file with the hashes that chain its entries. */
@Service
public class Logbook {

    private static final int PAGE = 100;
    private static final int LONGEST = 60;
    private static final CSVFormat CSV = CSVFormat.RFC4180
            .builder()
            .setHeader(
                    "id",
                    "at",
                    "person",
                    "site",
                    "endpoint",
                    "action",
                    "before",
                    "after",
                    "reason",
                    "person_id",
                    "previous",
                    "hash")
            .get();

    private final LogStore store;
    private final Log log;
    private final JsonMapper json;

    Logbook(LogStore store, Log log, JsonMapper json) {
        this.store = store;
        this.log = log;
        this.json = json;
    }

    /** Returns the pattern that finds a fragment anywhere; nothing typed finds everything. */
    static String pattern(String fragment) {
        String text = fragment.strip();
        if (text.isEmpty()) return "";
        String plain = text.substring(0, Math.min(LONGEST, text.length()));
        return "%" + plain.replace("\\", "\\\\").replace("%", "\\%").replace("_", "\\_") + "%";
    }

    List<LogLine> find(long siteId, Wanted wanted) {
        return store.find(siteId, wanted, PAGE).stream().map(log::line).toList();
    }

    List<CountRow> people(long siteId) {
        return store.people(siteId);
    }

    List<CountRow> actions(long siteId) {
        return store.actions(siteId);
    }

    /** Writes the log of a site as CSV (RFC 4180), entry by entry, so that its length costs no memory. */
    @Transactional(readOnly = true)
    public void csv(long siteId, OutputStream out) throws IOException {
        try (var rows = store.chain(siteId);
                var printer = new CSVPrinter(new OutputStreamWriter(out, StandardCharsets.UTF_8), CSV)) {
            for (ChainedRow r : rows)
                printer.printRecord(
                        r.id(),
                        r.at(),
                        r.person(),
                        r.siteId(),
                        r.endpointId(),
                        r.action(),
                        r.before(),
                        r.after(),
                        r.reason(),
                        r.personId(),
                        r.previous(),
                        r.hash());
        }
    }

    /** Writes the log of a site, or of all of them, as JSON, entry by entry. */
    @Transactional(readOnly = true)
    public void json(Optional<Long> siteId, OutputStream out) throws IOException {
        try (var rows = store.chain(siteId.orElse(null))) {
            out.write("{\"format\":\"knot-tag-log/1\",\"entries\":[".getBytes(StandardCharsets.UTF_8));
            String between = "\n";
            for (ChainedRow r : rows) {
                out.write((between + json.writeValueAsString(r)).getBytes(StandardCharsets.UTF_8));
                between = ",\n";
            }
            out.write("\n]}\n".getBytes(StandardCharsets.UTF_8));
        }
    }
}
