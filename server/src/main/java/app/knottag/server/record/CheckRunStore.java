package app.knottag.server.record;

import app.knottag.core.reach.Check;
import app.knottag.core.reach.Evidence;
import app.knottag.core.reach.Fault;
import app.knottag.core.reach.Grade;
import app.knottag.core.reach.Outcome;
import app.knottag.core.reach.Question;
import app.knottag.server.db.Json;
import java.time.Instant;
import java.util.List;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Options;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

/** Rounds of checks as they came out; never changed afterwards. */
@Mapper
public interface CheckRunStore {

    /** A run of the checks; one that was made before proofs belonged to something has no basis. */
    record Row(long id, Instant at, String by, boolean failed, Json results, Json basis) {}

    @Select("""
            insert into check_run (endpoint_id, at, by, failed, results, basis) values (#{endpointId}, #{at}, #{by}, #{failed},
                #{results}, #{basis}) returning id""")
    @Options(flushCache = Options.FlushCachePolicy.TRUE)
    long add(
            @Param("endpointId") long endpointId,
            @Param("at") Instant at,
            @Param("by") String by,
            @Param("failed") boolean failed,
            @Param("results") Json results,
            @Param("basis") Json basis);

    /** Says of a run that the same was found once more later. */
    @Update("update check_run set again_at = #{at} where id = #{id}")
    int again(@Param("id") long id, @Param("at") Instant at);

    // What was proved of a unit says nothing of the one that took its place.
    @Select("""
            select id, at, by, failed, results, basis from check_run where endpoint_id = #{endpointId}
            and at > coalesce((select max(started_at) from swap where endpoint_id = #{endpointId}), '-infinity') order by id desc
                limit 1""")
    Row latest(long endpointId);

    /** What somebody saw at a check. */
    record ObservationRow(Check checkName, Outcome outcome, Evidence evidence, Instant at, String by, Json basis) {}

    /** Adds what somebody saw; returns 0 when the same person has said so already of the same moment. */
    @Insert("""
            insert into observation (endpoint_id, check_name, outcome, evidence, at, by, basis)
            select #{endpointId}, #{w.checkName}, #{w.outcome}, #{w.evidence}, #{w.at}, #{w.by}, #{w.basis}
            where not exists (select 1 from observation where endpoint_id = #{endpointId} and check_name = #{w.checkName}
                and at = #{w.at} and by = #{w.by})""")
    int addObservation(@Param("endpointId") long endpointId, @Param("w") ObservationRow observation);

    @Select("""
            select distinct on (check_name) check_name, outcome, evidence, at, by, basis from observation
            where endpoint_id = #{endpointId} order by check_name, at desc, id desc""")
    List<ObservationRow> observations(long endpointId);

    record SiteRunRow(long endpointId, Instant at, String by, Json results) {}

    /** The latest runs of all that hold a sign-off at a site. */
    @Select("""
            select distinct on (r.endpoint_id) r.endpoint_id, r.at, r.by, r.results from check_run r join endpoint e on e.id = r.endpoint_id
            where e.site_id = #{siteId} and e.retired_at is null and e.confirmed_at is not null order by r.endpoint_id, r.id desc""")
    List<SiteRunRow> runsOfSite(long siteId);

    record SiteObservationRow(
            long endpointId, Check checkName, Outcome outcome, Evidence evidence, Instant at, String by) {}

    /** What was seen last at each check of all that hold a sign-off at a site. */
    @Select("""
            select distinct on (o.endpoint_id, o.check_name) o.endpoint_id, o.check_name, o.outcome, o.evidence, o.at, o.by
            from observation o join endpoint e on e.id = o.endpoint_id
            where e.site_id = #{siteId} and e.retired_at is null and e.confirmed_at is not null
            order by o.endpoint_id, o.check_name, o.at desc, o.id desc""")
    List<SiteObservationRow> observationsOfSite(long siteId);

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
            insert into fault_found (endpoint_id, check_run_id, site_id, fault, at, by) values (#{endpointId}, #{checkRunId}, #{siteId},
                #{fault}, #{at}, #{by})
            on conflict (check_run_id) do update set fault = excluded.fault, at = excluded.at, by = excluded.by""")
    void addFound(
            @Param("endpointId") long endpointId,
            @Param("checkRunId") long checkRunId,
            @Param("siteId") long siteId,
            @Param("fault") Fault fault,
            @Param("at") Instant at,
            @Param("by") String by);

    /** What somebody said had mended an endpoint, after which run. */
    record FoundRow(long checkRunId, Fault fault, String endpoint, Instant at, String by) {}

    @Select("""
            select f.check_run_id, f.fault, e.name as endpoint, f.at, f.by from fault_found f join endpoint e on e.id = f.endpoint_id
            where f.site_id = #{siteId} order by f.at desc limit 200""")
    List<FoundRow> found(long siteId);

    @Delete("delete from fault_found where site_id = #{siteId} and check_run_id = #{checkRunId}")
    int forget(@Param("siteId") long siteId, @Param("checkRunId") long checkRunId);

    /** A question that was answered after a run; one that nobody could answer cannot be told. */
    record AnswerRow(Question question, Outcome outcome, Evidence evidence, Instant at, String by) {}

    @Select("""
            select question, outcome, evidence, at, by from diagnosis_answer where endpoint_id = #{endpointId} and check_run_id = \
            #{checkRunId}
                order by at, question""")
    List<AnswerRow> questions(@Param("endpointId") long endpointId, @Param("checkRunId") long checkRunId);

    @Insert("""
            insert into diagnosis_answer (endpoint_id, check_run_id, question, outcome, evidence, by) values (#{endpointId}, #{checkRunId},
                #{question}, #{outcome}, #{evidence}, #{by})
            on conflict (endpoint_id, check_run_id, question) do update set outcome = excluded.outcome, evidence = excluded.evidence, at =
                now(), by = excluded.by""")
    void keepAnswer(
            @Param("endpointId") long endpointId,
            @Param("checkRunId") long checkRunId,
            @Param("question") Question question,
            @Param("outcome") Outcome outcome,
            @Param("evidence") Evidence evidence,
            @Param("by") String by);
}
