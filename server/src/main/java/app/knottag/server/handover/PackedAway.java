package app.knottag.server.handover;

import app.knottag.core.handover.SealReport;
import app.knottag.core.handover.SealReport.Sealed;
import app.knottag.core.kind.GateType;
import app.knottag.server.change.Consequences;
import app.knottag.server.log.Log;
import app.knottag.server.record.Endpoints;
import app.knottag.server.record.Runbooks;
import app.knottag.server.record.Sites;
import app.knottag.server.web.Problem;
import java.util.List;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** What travels: how it was sealed for the night, and that it is unpacked again. */
@Service
public class PackedAway {

    private final HandoverStore store;
    private final Endpoints endpoints;
    private final Runbooks runbooks;
    private final Sites sites;
    private final Consequences consequences;
    private final Log log;

    PackedAway(
            HandoverStore store,
            Endpoints endpoints,
            Runbooks runbooks,
            Sites sites,
            Consequences consequences,
            Log log) {
        this.store = store;
        this.endpoints = endpoints;
        this.runbooks = runbooks;
        this.sites = sites;
        this.consequences = consequences;
        this.log = log;
    }

    List<SealReport> nights(long siteId) {
        return SealReport.of(
                store.seals(siteId).stream()
                        .map(s -> new Sealed(s.number(), s.caseNumber(), s.endpointId(), s.name(), s.at(), s.by()))
                        .toList(),
                sites.clock(siteId).zone());
    }

    /** Begins its set-up anew where it is unpacked; what was proved yesterday belongs to yesterday's place and leads. */
    @Transactional
    public void unpack(long endpointId, String by) {
        var e = endpoints.get(endpointId);
        var book = runbooks.runbook(e);
        boolean packed = book.kind().steps().stream()
                .anyMatch(s -> s.gate().type() == GateType.NEW_SEALS
                        && book.record(s.key()).done());
        if (!packed) throw Problem.of(HttpStatus.CONFLICT, "not-packed", e.name() + " is not packed away and sealed.");
        consequences.unpacked(e);
        log.write(Log.entry(by, "unpacked it again").at(e.siteId(), endpointId));
    }
}
