package app.knottag.server.handover;

import java.util.Locale;

/** The tables that hold a site, in the order in which they are taken in, and which of their rows are of it. */
enum SiteTable {
    CLIENT("id = (select client_id from site where id = #{siteId})"),
    SITE("id = #{siteId}"),
    SEGMENT(),
    POOL("segment_id in (select id from segment where site_id = #{siteId})"),
    SERIES(),
    PARTNER(),
    PLACE(),
    GEAR(),
    PORT(),
    OUTLET(),
    ENDPOINT(),
    INTERFACE(),
    LISTED_SERVICE(),
    BUSY_TIME(),
    STAY(),
    LOOK(),
    RENUMBERING(),
    REGISTRY(),
    REGISTRATION(),
    HAND_OVER("registry_id in (select id from registry where site_id = #{siteId})"),
    SWAP(),
    OWNER_LEFT(),
    PREREQUISITE(),
    STEP(Of.ENDPOINT),
    ENDPOINT_FACT(Of.ENDPOINT),
    SEAL(Of.ENDPOINT),
    FIRMWARE(Of.ENDPOINT),
    OPENING(Of.ENDPOINT),
    WORKSHEET(),
    CHECK_RUN(Of.ENDPOINT),
    OBSERVATION(Of.ENDPOINT),
    DIAGNOSIS_ANSWER(Of.ENDPOINT),
    FAULT_FOUND(),
    SIGN_OFF(Of.ENDPOINT),
    DEVICE_CHANGE(Of.ENDPOINT),
    SWEEP("segment_id in (select id from segment where site_id = #{siteId})"),
    VISIT(),
    VISIT_UNIT(Of.VISIT),
    VISIT_TASK(Of.VISIT),
    VISIT_HAND(Of.VISIT),
    VISIT_MINUTES(Of.VISIT),
    PRINTED_TAG(Of.ENDPOINT),
    LET_PASS(Of.ENDPOINT),
    SIGNED_PACK(),
    KNOWN_MAC(),
    GEAR_READING(),
    PORT_STAY(),
    WATCH(),
    NIGHT(),
    NIGHT_LOOK(Of.NIGHT),
    NIGHT_LINE(Of.NIGHT),
    WATCH_STANDING();

    private static final class Of {
        static final String ENDPOINT = "endpoint_id in (select id from endpoint where site_id = #{siteId})";
        static final String NIGHT = "night_id in (select id from night where site_id = #{siteId})";
        static final String VISIT = "visit_id in (select id from visit where site_id = #{siteId})";
    }

    private final String where;

    SiteTable() {
        this("site_id = #{siteId}");
    }

    SiteTable(String where) {
        this.where = where;
    }

    /** What is written of it: a row a line, in an order that does not change. */
    String read() {
        return "select coalesce(string_agg(to_jsonb(t)::text, E',\\n' order by t::text), '') from " + table()
                + " t where " + where;
    }

    String table() {
        return name().toLowerCase(Locale.ROOT);
    }

    String file() {
        return "data/" + table() + ".json";
    }
}
