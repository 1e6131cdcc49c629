package app.knottag.server.handover;

import app.knottag.core.handover.PackSite;
import app.knottag.core.handover.PackSite.PackDevice;
import app.knottag.core.handover.PackType;
import app.knottag.core.handover.Packs;
import app.knottag.core.handover.Readiness;
import app.knottag.server.change.Consequences;
import app.knottag.server.handover.HandoverStore.SignedPack;
import app.knottag.server.handover.Signature.SignedPoint;
import app.knottag.server.log.Log;
import app.knottag.server.record.Sites;
import app.knottag.server.web.Problem;
import java.time.Clock;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.function.Supplier;
import org.apache.commons.codec.digest.DigestUtils;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionTemplate;

/** Packs of a site: made anew each time they are looked at, and kept as they were once they are signed. */
@Service
public class PackWork {

    private final PackLoader loader;
    private final HandoverStore store;
    private final Sites sites;
    private final Consequences consequences;
    private final TransactionTemplate transactions;
    private final Log log;
    private final Clock clock;

    PackWork(
            PackLoader loader,
            HandoverStore store,
            Sites sites,
            Consequences consequences,
            TransactionTemplate transactions,
            Log log,
            Clock clock) {
        this.loader = loader;
        this.store = store;
        this.sites = sites;
        this.consequences = consequences;
        this.transactions = transactions;
        this.log = log;
        this.clock = clock;
    }

    String html(long siteId, PackType type, String by) {
        return PackHtml.page(Packs.of(type, loader.load(siteId, by)));
    }

    byte[] pdf(long siteId, PackType type, String by) {
        return PackPdf.write(PackHtml.write(Packs.of(type, loader.load(siteId, by)), List.of()));
    }

    /** Whom the client calls, and the packs that were signed. */
    record Kept(String help, List<SignedPack> signed) {}

    Kept kept(long siteId) {
        sites.site(siteId);
        return new Kept(store.help(siteId), store.packs(siteId));
    }

    @Transactional
    public void keepHelp(long siteId, String help, String by) {
        String was = kept(siteId).help();
        if (was.equals(help)) return;
        store.keepHelp(siteId, help);
        log.write(Log.entry(by, "said whom the client calls")
                .at(siteId)
                .before(was)
                .after(help));
    }

    /** Who signs, and what was drawn. */
    record Signed(String signer, List<List<SignedPoint>> strokes) {}

    /**
     * Signs a pack: its paper is made while nobody waits for the database, and kept as it is. With the client's the devices that are
     * ready are handed over, and only if nothing of the site is changed meanwhile.
     *
     * @param keeper what keeping it is wrapped in, so that a pack that is sent twice is signed once
     */
    SignedPack sign(
            long siteId, PackType type, Signed signed, String by, Function<Supplier<SignedPack>, SignedPack> keeper) {
        String picture = Signature.picture(signed.strokes());
        String signer = signed.signer();
        var site = loader.load(siteId, by);
        var ready = site.devices().stream()
                .filter(d -> Readiness.ready(d.known(), site.head().clock()))
                .toList();
        if (type == PackType.CLIENT && ready.isEmpty())
            throw Problem.of(
                    HttpStatus.CONFLICT,
                    "nothing-ready",
                    "No device of this site is ready to be handed over. What is left to do stands under Ready.");
        String line = (picture.isEmpty() ? "Signed by name: " : "Signed: ") + signer + ", "
                + site.head().clock().moment(site.head().clock().now()) + " ("
                + site.head().zone() + "), before " + by + ".";
        byte[] paper = PackPdf.write(PackHtml.write(Packs.of(type, site), PackHtml.signature(picture, line)));
        return Optional.ofNullable(transactions.execute(
                        t -> keeper.apply(() -> keep(siteId, type, signer, site, ready, paper, by))))
                .orElseThrow();
    }

    private SignedPack keep(
            long siteId, PackType type, String signer, PackSite site, List<PackDevice> ready, byte[] paper, String by) {
        // Whoever writes into the log holds its end: from here on nobody else's change comes before this one.
        log.write(Log.entry(by, "pack signed")
                .at(siteId)
                .after(Map.of(
                        "name",
                        type.words(),
                        "signer",
                        signer,
                        "sha256",
                        DigestUtils.sha256Hex(paper),
                        "devices",
                        ready.size())));
        if (store.changesSince(siteId, site.log().id()) > 1)
            throw Problem.of(
                    HttpStatus.CONFLICT,
                    "changed-meanwhile",
                    "Somebody changed something of this site while the pack was made. Look at it once more, then sign.");
        long id = store.addPack(
                new SignedPack(
                        0, siteId, type, signer, clock.instant(), by, site.log().id(), ready.size(), ""),
                paper);
        var pack = Optional.ofNullable(store.pack(id)).orElseThrow();
        if (type == PackType.CLIENT) {
            var ids = ready.stream().map(d -> d.known().id()).toList();
            store.handedOver(ids, clock.instant());
            for (long endpoint : ids) {
                consequences.stand(endpoint);
                log.write(Log.entry(by, "handed over").at(siteId, endpoint).after(signer));
            }
        }
        return pack;
    }

    byte[] signed(long packId) {
        return Optional.ofNullable(store.document(packId))
                .orElseThrow(() -> Problem.notFound("There is no such pack."))
                .document();
    }
}
