package app.knottag.server.record;

import app.knottag.core.status.Status;
import app.knottag.server.db.Json;
import java.time.Instant;
import java.util.Collection;
import java.util.List;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.jspecify.annotations.Nullable;

/** Steps of runbooks as they stand in the database. */
@Mapper
public interface StepStore {

    record Row(
            String key,
            Status status,
            Instant startedAt,
            Instant endedAt,
            Json evidence,
            Json findings,
            String reason,
            String by,
            int tries,
            int restarts) {}

    record RunningRow(
            long siteId,
            String site,
            long endpointId,
            String endpoint,
            String kind,
            int kindVersion,
            String key,
            Instant startedAt,
            int restarts) {}

    @Select("""
            select key, status, started_at, ended_at, evidence, findings, reason, by, tries, restarts from step where endpoint_id =
                #{endpointId}""")
    List<Row> of(long endpointId);

    /** A step of one of many endpoints. */
    record BoardRow(
            long endpointId,
            String key,
            Status status,
            Instant startedAt,
            Instant endedAt,
            Json evidence,
            Json findings,
            String reason,
            String by,
            int tries,
            int restarts) {

        Row row() {
            return new Row(key, status, startedAt, endedAt, evidence, findings, reason, by, tries, restarts);
        }
    }

    @Select("""
            select s.endpoint_id, s.key, s.status, s.started_at, s.ended_at, s.evidence, s.findings, s.reason, s.by, s.tries,
                s.restarts from step s
            join endpoint e on e.id = s.endpoint_id where e.site_id = #{siteId} and e.retired_at is null and e.station = 'ONBOARD'""")
    List<BoardRow> onboard(long siteId);

    @Select("""
            <script>select endpoint_id, key, status, started_at, ended_at, evidence, findings, reason, by, tries, restarts from step
            where endpoint_id in <foreach collection="ids" item="id" open="(" separator="," close=")">#{id}</foreach></script>""")
    List<BoardRow> ofAll(@Param("ids") Collection<Long> endpointIds);

    @Insert("""
            insert into step (endpoint_id, key, status, started_at, ended_at, evidence, findings, reason, by, tries, restarts)
            values (#{id}, #{s.key}, #{s.status}, #{s.startedAt}, #{s.endedAt}, #{s.evidence}, #{s.findings}, #{s.reason}, #{s.by},
                #{s.tries}, #{s.restarts})
            on conflict (endpoint_id, key) do update set status = excluded.status, started_at = excluded.started_at, ended_at =
                excluded.ended_at,
                evidence = excluded.evidence, findings = excluded.findings, reason = excluded.reason, by = excluded.by, tries =
                    excluded.tries, restarts = excluded.restarts""")
    void keep(@Param("id") long endpointId, @Param("s") Row step);

    /** Waits that run anywhere; a wait goes on whoever looks. */
    @Select("""
            select e.site_id, si.name as site, s.endpoint_id, e.name as endpoint, e.kind, e.kind_version, s.key, s.started_at, s.restarts
            from step s join endpoint e on e.id = s.endpoint_id join site si on si.id = e.site_id
            where e.retired_at is null and s.started_at is not null and s.ended_at is null
            and (#{within}::text is null or e.site_id = any(string_to_array(#{within}, ' ')::bigint[])) order by s.started_at limit 200""")
    List<RunningRow> running(@Nullable String within);
}
