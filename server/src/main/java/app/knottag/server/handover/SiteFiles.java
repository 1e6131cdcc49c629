package app.knottag.server.handover;

import app.knottag.core.kind.KindReader;
import app.knottag.core.kind.Kinds;
import app.knottag.server.handover.SiteZip.Manifest;
import app.knottag.server.log.Log;
import app.knottag.server.log.Logbook;
import app.knottag.server.record.Sites;
import app.knottag.server.web.Problem;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import org.springframework.dao.DataAccessException;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Isolation;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/** A whole site as one file: out, and into a Knot Tag that has no site yet. */
@Service
public class SiteFiles {

    private static final String KINDS = "data/kind_file.json";
    private static final String LOG = "log.json";

    private final SiteFileStore store;
    private final HandoverStore handovers;
    private final Sites sites;
    private final Logbook book;
    private final Kinds kinds;
    private final Log log;
    private final Clock clock;
    private final JsonMapper json;
    private final SiteZip zip;

    SiteFiles(
            SiteFileStore store,
            HandoverStore handovers,
            Sites sites,
            Logbook book,
            Kinds kinds,
            Log log,
            Clock clock,
            JsonMapper json) {
        this.store = store;
        this.handovers = handovers;
        this.sites = sites;
        this.book = book;
        this.kinds = kinds;
        this.log = log;
        this.clock = clock;
        this.json = json;
        this.zip = new SiteZip(json);
    }

    /** Writes everything of a site as it is at one moment. */
    @Transactional(readOnly = true, isolation = Isolation.REPEATABLE_READ)
    public byte[] write(long siteId) {
        var site = sites.site(siteId);
        store.utc();
        var head = handovers.head();
        var files = new LinkedHashMap<String, String>();
        for (var table : SiteTable.values()) files.put(table.file(), lines(store.rows(table, siteId)));
        files.put(KINDS, lines(store.kinds(siteId)));
        var entries = new ByteArrayOutputStream();
        try {
            book.json(Optional.of(siteId), entries);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        files.put(LOG, entries.toString(StandardCharsets.UTF_8));
        var hashes = new TreeMap<String, String>();
        files.forEach((name, text) -> hashes.put(name, SiteZip.sha256(text)));
        return zip.write(
                new Manifest(SiteZip.FORMAT, site.name(), site.code(), clock.instant(), head.id(), head.hash(), hashes),
                files);
    }

    private static String lines(String rows) {
        return "[\n" + rows + (rows.isEmpty() ? "" : "\n") + "]\n";
    }

    private record KindRow(String id, int version, boolean shipped, String yaml) {}

    /**
     * Takes a whole site in, all of it or nothing. Its log stays in the file: the chain of this machine begins with what is taken in.
     *
     * @return the id of the site
     */
    @Transactional
    public long read(byte[] bytes, String by) {
        var whole = zip.read(bytes);
        int there = store.ids().size();
        if (there > 0)
            throw Problem.of(
                    HttpStatus.CONFLICT,
                    "not-empty",
                    "A whole site is taken only into a Knot Tag that has none yet; this one has " + there + ".");
        store.utc();
        try {
            rows(whole.files());
        } catch (DataAccessException e) {
            throw Problem.field(
                    "file",
                    "site-file-refused",
                    "What is in it does not go together, so nothing was taken: "
                            + e.getMostSpecificCause().getMessage());
        }
        store.addKinds(whole.files().getOrDefault(KINDS, "[]"), by);
        store.pastAllIds();
        var taken = store.ids();
        if (taken.size() != 1) throw Problem.field("file", "site-file-refused", "There is not just one site in it.");
        long id = taken.get(0);
        log.write(Log.entry(by, "site taken in from a file").at(id).after(whole.manifest()));
        known(whole.files());
        return id;
    }

    private void rows(Map<String, String> files) {
        for (var table : SiteTable.values()) {
            String rows = files.getOrDefault(table.file(), "[]");
            if (table == SiteTable.SITE) store.addSite(rows);
            else store.add(table.table(), rows);
        }
        store.feed(files.getOrDefault(SiteTable.SITE.file(), "[]"));
    }

    /** Kinds of the shop's own that came along are known from now on. */
    private void known(Map<String, String> files) {
        List<KindRow> rows = json.readValue(files.getOrDefault(KINDS, "[]"), new TypeReference<>() {});
        for (var row : rows)
            if (kinds.find(row.id(), row.version()).isEmpty())
                Optional.ofNullable(KindReader.read(row.yaml()).kind()).ifPresent(kinds::add);
    }
}
