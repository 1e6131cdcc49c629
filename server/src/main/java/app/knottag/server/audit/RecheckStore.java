package app.knottag.server.audit;

import java.time.Instant;
import java.util.List;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Options;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.jspecify.annotations.Nullable;

/** Whose proof is how old, and what became of each kind, at all sites. */
@Mapper
interface RecheckStore {

    /** @param failedSince null unless the last checks failed */
    record ProvedRow(
            long id,
            String name,
            String place,
            String kind,
            boolean partner,
            Instant held,
            @Nullable Instant failedSince) {}

    /** Those of a site whose sign-off holds; later checks count as well when the service answered and none failed. */
    @Select("""
            select e.id, e.name, coalesce(p.name, '') as place, e.kind, e.partner_id is not null as partner,
              greatest(e.confirmed_at, r.at) as held,
              case when e.station = 'CONFIRM' and e.status = 'FAILED' and e.confirmed_at is not null then
              (select at from check_run r where r.endpoint_id = e.id order by r.id desc limit 1) end as failed_since
            from endpoint e left join place p on p.id = e.place_id
            left join lateral (
              select coalesce(again_at, at) as at, not failed and results @> '[{"check": "SERVICE", "status": "PASSED"}]' as held
              from check_run r where r.endpoint_id = e.id order by r.id desc limit 1
            ) r on r.held
            where e.site_id = #{siteId} and e.retired_at is null and e.confirmed_at is not null order by e.id""")
    @Options(flushCache = Options.FlushCachePolicy.TRUE)
    List<ProvedRow> proved(long siteId);

    record HistoryRow(String kind, int changes, double years) {}

    /** What was found, and what reset itself, after each device's first sign-off; at most one a day and device. */
    @Select("""
            with first as (
              select o.endpoint_id as id, min(o.at) as at from sign_off o group by o.endpoint_id
            ), event as (
              select distinct x.endpoint_id as id, x.at::date as day from (
                select endpoint_id, at from fault_found
                union all select endpoint_id, at from device_change where what = 'RESET') x
              join first f on f.id = x.endpoint_id and x.at > f.at
            ), counted as (
              select id, count(*) as changes from event group by id
            )
            select e.kind, coalesce(sum(c.changes), 0)::int as changes,
              sum(extract(epoch from coalesce(e.retired_at, now()) - f.at) / 31536000)::float8 as years
            from first f join endpoint e on e.id = f.id left join counted c on c.id = f.id group by e.kind""")
    @Options(flushCache = Options.FlushCachePolicy.TRUE)
    List<HistoryRow> histories();

    record OverdueRow(long siteId, String site, String kind, boolean partner, int count) {}

    /**
     * How many are overdue at every site, or fail.
     *
     * @param kinds of the devices, each with and without a partner
     * @param partners whether it has one, in the same order
     * @param before when it must have held last to be overdue, in the same order
     */
    @Select("""
            select e.site_id, s.name as site, e.kind, c.partner, count(*)::int as count
            from endpoint e join site s on s.id = e.site_id join unnest(
              #{kinds,typeHandler=org.apache.ibatis.type.ArrayTypeHandler}::text[],
              #{partners,typeHandler=org.apache.ibatis.type.ArrayTypeHandler}::boolean[],
              #{before,typeHandler=org.apache.ibatis.type.ArrayTypeHandler}::timestamptz[]) as c (kind, partner, before)
            on c.kind = e.kind and c.partner = (e.partner_id is not null)
            left join lateral (
              select coalesce(again_at, at) as at, not failed and results @> '[{"check": "SERVICE", "status": "PASSED"}]' as held
              from check_run r where r.endpoint_id = e.id order by r.id desc limit 1
            ) r on r.held
            where e.retired_at is null and (e.confirmed_at <= c.before
              or e.station = 'CONFIRM' and e.status = 'FAILED' and e.confirmed_at is not null)
            and coalesce(r.at <= c.before, true)
            group by e.site_id, s.name, e.kind, c.partner order by e.site_id""")
    @Options(flushCache = Options.FlushCachePolicy.TRUE)
    List<OverdueRow> overdue(
            @Param("kinds") String[] kinds, @Param("partners") String[] partners, @Param("before") String[] before);
}
