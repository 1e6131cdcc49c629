package app.knottag.server.runbook;

import app.knottag.core.knot.Knot;
import app.knottag.server.db.Json;
import java.time.Instant;
import java.util.List;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;

/** Steps of runbooks as they stand in the database. */
@Mapper
interface StepStore {

    record Row(
            String key,
            Knot knot,
            Instant startedAt,
            Instant endedAt,
            Json evidence,
            Json findings,
            String reason,
            String by) {}

    record RunningRow(long endpointId, String endpoint, String kind, String key, Instant startedAt) {}

    @Select(
            "select key, knot, started_at, ended_at, evidence, findings, reason, by from step where endpoint_id = #{endpointId}")
    List<Row> of(long endpointId);

    /** A step of an endpoint that waits at Onboard. */
    record BoardRow(
            long endpointId,
            String key,
            Knot knot,
            Instant startedAt,
            Instant endedAt,
            Json evidence,
            Json findings,
            String reason,
            String by) {

        Row row() {
            return new Row(key, knot, startedAt, endedAt, evidence, findings, reason, by);
        }
    }

    @Select("""
            select s.endpoint_id, s.key, s.knot, s.started_at, s.ended_at, s.evidence, s.findings, s.reason, s.by from step s
            join endpoint e on e.id = s.endpoint_id where e.site_id = #{siteId} and e.retired_at is null and e.station = 'ONBOARD'""")
    List<BoardRow> onboard(long siteId);

    @Insert("""
            insert into step (endpoint_id, key, knot, started_at, ended_at, evidence, findings, reason, by)
            values (#{id}, #{s.key}, #{s.knot}, #{s.startedAt}, #{s.endedAt}, #{s.evidence}, #{s.findings}, #{s.reason}, #{s.by})
            on conflict (endpoint_id, key) do update set knot = excluded.knot, started_at = excluded.started_at, ended_at = excluded.ended_at,
                evidence = excluded.evidence, findings = excluded.findings, reason = excluded.reason, by = excluded.by""")
    void keep(@Param("id") long endpointId, @Param("s") Row step);

    @Select("""
            select s.endpoint_id, e.name as endpoint, e.kind, s.key, s.started_at from step s join endpoint e on e.id = s.endpoint_id
            where e.site_id = #{siteId} and e.retired_at is null and s.started_at is not null and s.ended_at is null order by s.started_at""")
    List<RunningRow> running(long siteId);
}
