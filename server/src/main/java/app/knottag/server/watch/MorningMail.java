package app.knottag.server.watch;

import app.knottag.core.time.DateStyle;
import app.knottag.core.today.Notice;
import app.knottag.core.watch.MorningText;
import app.knottag.core.watch.WatchHours;
import app.knottag.server.db.Claims;
import app.knottag.server.db.Claims.Work;
import app.knottag.server.log.Log;
import app.knottag.server.probe.MailRelay;
import app.knottag.server.probe.MailRelay.Way;
import app.knottag.server.record.Noticing;
import app.knottag.server.watch.MailStore.MailRow;
import app.knottag.server.watch.NightStore.NightRow;
import app.knottag.server.watch.WatchStore.WatchRow;
import app.knottag.server.web.FormReader;
import app.knottag.server.web.Problem;
import app.knottag.server.web.Scope;
import jakarta.mail.internet.AddressException;
import jakarta.mail.internet.InternetAddress;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import org.springframework.http.HttpStatus;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** The report of the morning by mail: one for all sites, when the last night of them is over. */
@Service
class MorningMail {

    private static final int MOST_RECIPIENTS = 10;
    private static final int LAST_PORT = 65_535;
    private static final String HOST = "[a-z0-9]([a-z0-9.-]{0,251}[a-z0-9])?";

    /** What could not be sent within a day is on the page all the same. */
    private static final Duration TRIED_FOR = Duration.ofHours(20);

    private static final Duration TRIED_AGAIN = Duration.ofMinutes(10);

    private static final Set<Notice.What> DUE = EnumSet.of(Notice.What.CUT_OFF, Notice.What.DUE);

    private final MailStore store;
    private final NightStore nights;
    private final WatchStore watches;
    private final NightRuns runs;
    private final MailRelay relay;
    private final List<Noticing> noticing;
    private final Log log;
    private final Clock clock;
    private final Claims claims;

    MorningMail(
            MailStore store,
            NightStore nights,
            WatchStore watches,
            NightRuns runs,
            MailRelay relay,
            List<Noticing> noticing,
            Log log,
            Clock clock,
            Claims claims) {
        this.store = store;
        this.nights = nights;
        this.watches = watches;
        this.runs = runs;
        this.relay = relay;
        this.noticing = noticing;
        this.log = log;
        this.clock = clock;
        this.claims = claims;
    }

    Optional<MailRow> settings() {
        return store.find();
    }

    @Transactional
    public void put(Way typed, String by) {
        var form = new FormReader();
        String host = typed.host().strip().toLowerCase(Locale.ROOT);
        if (!host.matches(HOST))
            form.add("host", "bad-host", "An address such as 10.44.16.9, or a name such as mail.shop.example.");
        if (typed.port() < 1 || typed.port() > LAST_PORT)
            form.add("port", "bad-port", "A port is a number from 1 to 65535; relays are mostly at 25.");
        String sender = address(form, "sender", typed.sender());
        var recipients = new ArrayList<String>();
        for (var line : typed.recipients()) if (!line.isEmpty()) recipients.add(address(form, "recipients", line));
        if (recipients.isEmpty() || recipients.size() > MOST_RECIPIENTS)
            form.add("recipients", "bad-number", "One to " + MOST_RECIPIENTS + " addresses get the report.");
        form.refuse();
        store.put(new Way(host, typed.port(), typed.secured(), sender, recipients), String.join("\n", recipients), by);
        log.write(Log.entry(by, "morning report goes by mail").after(host + ":" + typed.port()));
    }

    private static String address(FormReader form, String field, String typed) {
        String text = typed.strip();
        try {
            if (text.contains("@") && text.equals(new InternetAddress(text, true).getAddress())) return text;
            form.add(field, "bad-address", "“" + text + "” is not a plain mail address such as office@shop.example.");
        } catch (AddressException e) {
            form.add(field, "bad-address", "“" + text + "” is not a mail address: " + e.getMessage() + ".");
        }
        return "";
    }

    @Transactional
    public void end(String by) {
        if (store.end() == 0) throw Problem.notFound("No report goes by mail.");
        log.write(Log.entry(by, "morning report by mail ended"));
    }

    /** Sends a mail that says that mails arrive. */
    void trial() {
        var to = settings().orElseThrow(() -> Problem.notFound("Say first where the report goes."));
        String trouble = relay.hand(
                to.way(),
                "Knot Tag: a trial",
                "This mail shows that the morning report arrives here.\nIt comes once a day, also when nothing is new: when it"
                        + " stays away, look whether Knot Tag runs.\n");
        store.tried(clock.instant(), trouble);
        if (!trouble.isEmpty()) throw Problem.of(HttpStatus.BAD_GATEWAY, "not-sent", trouble);
    }

    /** Sends the report when all nights of the morning are over and it has not gone out yet; tries again when it fails. */
    @Scheduled(
            fixedDelayString = "${knot.night.look-every:30000}",
            initialDelayString = "${knot.night.look-every:30000}")
    void tick() {
        var now = clock.instant();
        if (!store.failedSince(now.minus(TRIED_AGAIN))) store.find().ifPresent(to -> tick(to, now));
    }

    private void tick(MailRow to, Instant now) {
        var all = watches.all();
        if (all.stream().anyMatch(w -> goesOn(w, now))) return;
        if (!nights.unmailed(now.minus(TRIED_FOR)).isEmpty()) claims.alone(Work.MAIL, 0, () -> send(to, all, now));
    }

    private void send(MailRow to, List<WatchRow> all, Instant now) {
        var told = nights.unmailed(now.minus(TRIED_FOR));
        if (told.isEmpty() || store.failedSince(now.minus(TRIED_AGAIN))) return;
        var mail = text(told, all, now);
        String trouble = relay.hand(to.way(), mail.subject(), mail.body());
        store.tried(now, trouble);
        if (trouble.isEmpty()) nights.mailed(told.stream().map(NightRow::id).toArray(Long[]::new), now);
    }

    private boolean goesOn(WatchRow w, Instant now) {
        var zone = ZoneId.of(w.zone());
        var hours = new WatchHours(w.fromTime(), w.untilTime());
        var morning = hours.morning(now, zone);
        if (hours.night(morning, zone).from().isAfter(now)) return false;
        return nights.of(w.siteId(), morning).map(NightRow::goesOn).orElse(true);
    }

    private MorningText text(List<NightRow> told, List<WatchRow> all, Instant now) {
        var missed = runs.missed(now);
        var sites = told.stream()
                .map(n -> new MorningText.Site(
                        n.site(),
                        runs.outcome(n),
                        nights.lines(n.id()).stream().map(NightRuns::line).toList(),
                        NightRuns.left(nights.looks(n.id())),
                        missed.getOrDefault(n.siteId(), List.of())))
                .toList();
        var style = all.stream()
                .filter(w -> w.siteId() == told.get(0).siteId())
                .map(WatchRow::dates)
                .findFirst()
                .orElse(DateStyle.WORDS);
        var due = noticing.stream()
                .flatMap(n -> n.notices(now, Scope.EVERYWHERE).stream())
                .filter(n -> DUE.contains(n.what()))
                .toList();
        return MorningText.of(told.get(0).morning(), style, sites, due);
    }
}
