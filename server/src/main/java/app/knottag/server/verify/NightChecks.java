package app.knottag.server.verify;

import app.knottag.core.reach.Check;
import app.knottag.core.watch.Unwell;
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
        return confirm.atNight(endpointId)
                .map(results -> Told.saw(Unwell.of(endpointId, name, results)))
                .orElseGet(() -> Told.not(
                        "Its address, MAC and serial are not all on record, or lie outside the site's segments."));
    }
}
