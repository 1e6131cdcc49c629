package app.knottag.server.register;

import app.knottag.core.time.DateStyle;
import app.knottag.core.time.SiteClock;
import java.time.Instant;
import java.time.ZoneId;
import java.util.Collection;
import java.util.List;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;

/** Sites at which a date of a registration or of an order may have come. */
@Mapper
interface DueStore {

    /** @param orders whether something is to be ordered for a visit */
    record DueSite(long id, String name, String zone, DateStyle dates, boolean orders) {
        SiteClock clock(Instant now) {
            return new SiteClock(now, ZoneId.of(zone), dates);
        }
    }

    /** What a date may have come for in registry {@code g}, each by an index of its own, so that what is not due costs nothing. */
    String ENDS = """
            select r.id, r.registry_id, 'ENDS' as why from registration r join endpoint e on e.id = r.endpoint_id
            where r.registry_id = g.id and r.ended_at is null and e.retired_at is null and r.ends_at < now() + interval '15 days'
            order by r.ends_at limit 14""";

    String ASKED = """
            select r.id, r.registry_id, 'ASKED' as why from registration r join endpoint e on e.id = r.endpoint_id
            where r.registry_id = g.id and r.ended_at is null and r.restarted_at is null and r.entered_at is null
              and e.retired_at is null limit 14""";

    String RESTART = """
            select r.id, r.registry_id, 'RESTART' as why from registration r join endpoint e on e.id = r.endpoint_id
            where (g.rules ->> 'restart')::boolean and r.registry_id = g.id and r.ended_at is null and r.restarted_at is null
              and r.entered_at > now() - interval '60 days' and e.retired_at is null limit 14""";

    String OLD = """
            select r.id, r.registry_id, 'OLD' as why from endpoint e join registration r on r.endpoint_id = e.id
            where r.registry_id = g.id and r.ended_at is null and e.site_id = g.site_id and e.status = 'FAILED'
              and e.station = 'REGISTER' and e.retired_at is null limit 14""";

    /** Those where something has run out come first, then those where somebody is expected and something is to be ordered. */
    @Select("""
            select s.id, s.name, s.zone, s.dates, coalesce(s.visit_on >= current_date - 1, false) and (
              exists (select from prerequisite p where p.site_id = s.id and p.done_at is null)
              or coalesce(bool_or((g.rules ->> 'leadDays')::int > 0), false)) as orders
            from site s left join registry g on g.site_id = s.id and g.retired_at is null group by s.id
            having (s.visit_on >= current_date - 1) is true or bool_or(exists (""" + ENDS + """
            ) or exists (""" + ASKED + """
            ) or exists (""" + RESTART + """
            ) or exists (""" + OLD + """
            )) order by bool_or(exists (select from registration r
              where r.registry_id = g.id and r.ended_at is null and r.ends_at < now())) desc nulls last, orders desc, s.id limit 25""")
    List<DueSite> sites();

    enum Why {
        ENDS,
        ASKED,
        RESTART,
        OLD
    }

    /** Of each registry and reason at most 14: then there may be more. */
    record DueRow(long id, long registryId, Why why) {}

    @Select("""
            <script>select d.id, d.registry_id, d.why from registry g cross join lateral (
              (<![CDATA[""" + ENDS + """
            ]]>) union all (<![CDATA[""" + ASKED + """
            ]]>) union all (<![CDATA[""" + RESTART + """
            ]]>) union all (<![CDATA[""" + OLD + """
            ]]>)) d where g.retired_at is null and g.site_id in
              <foreach collection="sites" item="id" open="(" separator="," close=")">#{id}</foreach></script>""")
    List<DueRow> due(@Param("sites") Collection<Long> sites);
}
