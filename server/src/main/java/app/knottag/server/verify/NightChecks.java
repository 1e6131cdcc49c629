package app.knottag.server.verify;

import app.knottag.core.reach.Check;
import app.knottag.core.reach.CheckResult;
import app.knottag.core.watch.Seen;
import app.knottag.server.record.NightLook;
import java.util.List;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;

/** Whether what is signed off still holds: the machine's checks of each such device. */
@Component
@Order(2)
class NightChecks implements NightLook {

    record SignedRow(long id, String name) {}

    @Mapper
    interface Signed {

        /** Those that are signed off and not away. */
        @Select("""
                select id, name from endpoint where site_id = #{siteId} and retired_at is null and confirmed_at is not null
                and away_since is null order by id""")
        List<SignedRow> signedOff(long siteId);
    }

    private final Signed store;
    private final Confirm confirm;

    NightChecks(Signed store, Confirm confirm) {
        this.store = store;
        this.confirm = confirm;
    }

    @Override
    public List<Errand> errands(long siteId) {
        return store.signedOff(siteId).stream()
                .map(e -> new Errand(
                        "checks " + e.id(),
                        "Checks of " + e.name(),
                        Check.values().length,
                        true,
                        gently -> look(e.id(), e.name())))
                .toList();
    }

    private Told look(long endpointId, String name) {
        var results = confirm.atNight(endpointId);
        if (results.isEmpty())
            return Told.not("Its address, MAC and serial are not all on record, or lie outside the site's segments.");
        var failed = results.get().stream().filter(CheckResult::failed).toList();
        var off = failed.stream().filter(f -> f.check() == Check.ANSWERS).findFirst();
        return Told.saw(off
                .or(() -> failed.stream().filter(f -> !f.check().failsWhenOff()).findFirst())
                .or(() -> failed.stream().findFirst())
                .map(f -> new Seen("device", f.check().name(), endpointId, title(name, f), detail(f, failed.size())))
                .stream()
                .toList());
    }

    private static String title(String name, CheckResult told) {
        if (told.check() == Check.ANSWERS) return name + " did not answer";
        return told.check().failsWhenOff() ? name + " did not find its partner" : name + " fails a check";
    }

    /** Who does not answer at all may have been switched off for the night: nobody can say that it is broken. */
    private static String detail(CheckResult told, int failed) {
        if (told.check() == Check.ANSWERS)
            return "It is off, or cut off: a look at night cannot tell. Does it answer by day? Then it is switched off at night.";
        String what = "“" + told.check().title() + "”: " + told.seen() + " ";
        if (told.check().failsWhenOff()) return what + "The partner may be off at night: check it by day.";
        return what + told.remedy() + (failed == 1 ? "" : " " + (failed - 1) + " more of its checks failed.");
    }
}
