package app.knottag.server.record;

import app.knottag.core.reach.Cause;
import app.knottag.core.reach.Check;
import app.knottag.core.reach.Evidence;
import app.knottag.core.reach.Grade;
import app.knottag.core.reach.Look;
import app.knottag.server.db.Json;
import java.time.Instant;
import java.util.List;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Options;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;

/** Rounds of checks as they came out; never changed afterwards. */
@Mapper
public interface RoundStore {

    /** A round; one that was made before proofs belonged to something has no bond. */
    record Row(long id, Instant at, String by, boolean failed, Json results, Json bond) {}

    @Select("""
            insert into round (endpoint_id, at, by, failed, results, bond) values (#{endpointId}, #{at}, #{by}, #{failed},
                #{results}, #{bond}) returning id""")
    @Options(flushCache = Options.FlushCachePolicy.TRUE)
    long add(
            @Param("endpointId") long endpointId,
            @Param("at") Instant at,
            @Param("by") String by,
            @Param("failed") boolean failed,
            @Param("results") Json results,
            @Param("bond") Json bond);

    // What was proved of a unit says nothing of the one that took its place.
    @Select("""
            select id, at, by, failed, results, bond from round where endpoint_id = #{endpointId}
            and at > coalesce((select max(started_at) from swap where endpoint_id = #{endpointId}), '-infinity') order by id desc
                limit 1""")
    Row latest(long endpointId);

    /** What somebody saw at a check. */
    record WitnessRow(Check checkName, String outcome, Evidence evidence, Instant at, String by, Json bond) {}

    @Insert("""
            insert into witness (endpoint_id, check_name, outcome, evidence, at, by, bond)
            values (#{endpointId}, #{w.checkName}, #{w.outcome}, #{w.evidence}, #{w.at}, #{w.by}, #{w.bond})""")
    void addWitness(@Param("endpointId") long endpointId, @Param("w") WitnessRow witness);

    @Select("""
            select distinct on (check_name) check_name, outcome, evidence, at, by, bond from witness
            where endpoint_id = #{endpointId} order by check_name, id desc""")
    List<WitnessRow> witnesses(long endpointId);

    /** A sign-off of the person on site. */
    record SignOffRow(Grade grade, String note, Instant at, String by) {}

    @Insert("""
            insert into sign_off (endpoint_id, grade, note, at, by) values (#{endpointId}, #{s.grade}, #{s.note}, #{s.at}, #{s.by})""")
    void addSignOff(@Param("endpointId") long endpointId, @Param("s") SignOffRow signOff);

    @Select("select grade, note, at, by from sign_off where endpoint_id = #{endpointId} order by id desc limit 1")
    SignOffRow signOff(long endpointId);

    /** What is counted of a device. */
    enum Change {
        RESET,
        MOVE
    }

    @Select("select count(*) from device_change where endpoint_id = #{endpointId} and what = #{what}")
    int changes(@Param("endpointId") long endpointId, @Param("what") Change what);

    @Insert("insert into device_change (endpoint_id, what, by) values (#{endpointId}, #{what}, #{by})")
    void addChange(@Param("endpointId") long endpointId, @Param("what") Change what, @Param("by") String by);

    @Insert("""
            insert into cause_found (endpoint_id, round_id, site_id, cause, at, by) values (#{endpointId}, #{roundId}, #{siteId},
                #{cause}, #{at}, #{by})
            on conflict (round_id) do update set cause = excluded.cause, at = excluded.at, by = excluded.by""")
    void addFound(
            @Param("endpointId") long endpointId,
            @Param("roundId") long roundId,
            @Param("siteId") long siteId,
            @Param("cause") Cause cause,
            @Param("at") Instant at,
            @Param("by") String by);

    /** What somebody said had mended an endpoint, after which round. */
    record FoundRow(long roundId, Cause cause, String endpoint, Instant at, String by) {}

    @Select("""
            select f.round_id, f.cause, e.name as endpoint, f.at, f.by from cause_found f join endpoint e on e.id = f.endpoint_id
            where f.site_id = #{siteId} order by f.at desc limit 200""")
    List<FoundRow> found(long siteId);

    @Delete("delete from cause_found where site_id = #{siteId} and round_id = #{roundId}")
    int forget(@Param("siteId") long siteId, @Param("roundId") long roundId);

    /** A look that was made after a round; one that nobody could make has an empty outcome. */
    record LookRow(Look look, String outcome, Evidence evidence, Instant at, String by) {}

    @Select("""
            select look, outcome, evidence, at, by from diagnosis_look where endpoint_id = #{endpointId} and round_id = #{roundId}
                order by at, look""")
    List<LookRow> looks(@Param("endpointId") long endpointId, @Param("roundId") long roundId);

    @Insert("""
            insert into diagnosis_look (endpoint_id, round_id, look, outcome, evidence, by) values (#{endpointId}, #{roundId},
                #{look}, #{outcome}, #{evidence}, #{by})
            on conflict (endpoint_id, round_id, look) do update set outcome = excluded.outcome, evidence = excluded.evidence, at =
                now(), by = excluded.by""")
    void keepLook(
            @Param("endpointId") long endpointId,
            @Param("roundId") long roundId,
            @Param("look") Look look,
            @Param("outcome") String outcome,
            @Param("evidence") Evidence evidence,
            @Param("by") String by);
}
