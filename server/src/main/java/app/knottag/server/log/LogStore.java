package app.knottag.server.log;

import app.knottag.server.log.Log.Row;
import java.time.LocalDate;
import java.util.List;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Options;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.cursor.Cursor;
import org.jspecify.annotations.Nullable;

/** Reads the log: what is looked for, and all of it with its hashes. */
@Mapper
interface LogStore {

    /**
     * What is looked for; what is empty or null does not count.
     *
     * @param pattern any fragment of an entry, as a pattern of LIKE
     * @param upTo the last day that counts, by the clock of the site
     * @param below entries before this one
     */
    record Wanted(
            String pattern,
            String person,
            String action,
            @Nullable Long endpointId,
            @Nullable LocalDate upTo,
            long below) {

        static Wanted lately(long below, @Nullable Long endpoint) {
            return new Wanted("", "", "", endpoint, null, below);
        }
    }

    @Select("""
            <script>select l.id, l.at, l.person, l.action, l.endpoint_id, e.name as endpoint, l.before, l.after, l.reason
            from log_entry l left join endpoint e on e.id = l.endpoint_id where l.site_id = #{siteId} and l.id &lt; #{w.below}
            <if test="w.endpointId != null">and l.endpoint_id = #{w.endpointId}</if>
            <if test="w.person != ''">and l.person = #{w.person}</if>
            <if test="w.action != ''">and l.action = #{w.action}</if>
            <if test="w.upTo != null">and l.at &lt; (#{w.upTo}::date + 1)::timestamp
              at time zone (select zone from site where id = #{siteId})</if>
            <if test="w.pattern != ''">and concat_ws(' ', l.person, l.action, e.name, l.reason, l.before::text, l.after::text)
              ilike #{w.pattern}</if>
            order by l.id desc limit #{limit}</script>""")
    List<Row> find(@Param("siteId") long siteId, @Param("w") Wanted wanted, @Param("limit") int limit);

    record CountRow(String what, long entries) {}

    @Select(
            "select person as what, count(*) as entries from log_entry where site_id = #{siteId} group by person order by person")
    List<CountRow> people(long siteId);

    @Select(
            "select action as what, count(*) as entries from log_entry where site_id = #{siteId} group by action order by action")
    List<CountRow> actions(long siteId);

    /** An entry just as its hash was made from it: texts as they stand in the database. */
    record ChainedRow(
            long id,
            String at,
            String person,
            @Nullable Long siteId,
            @Nullable Long endpointId,
            String action,
            @Nullable String before,
            @Nullable String after,
            String reason,
            @Nullable Long personId,
            String previous,
            String hash) {}

    @Select("""
            select id, to_char(at at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.US') as at, person, site_id, endpoint_id, action,
            before::text as before, after::text as after, reason, person_id,
            encode(previous, 'hex') as previous, encode(hash, 'hex') as hash
            from log_entry where #{siteId}::bigint is null or site_id = #{siteId} order by id""")
    @Options(fetchSize = 500)
    Cursor<ChainedRow> chain(@Param("siteId") @Nullable Long siteId);
}
