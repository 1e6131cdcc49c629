package app.knottag.server.verify;

import app.knottag.core.runbook.Stage.Station;
import java.time.Instant;
import java.util.List;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;

/** What does not hold, at whatever site; what is registered is told by what is due about it. */
@Mapper
interface BrokenStore {

    record BrokenRow(long siteId, String site, long endpointId, String endpoint, Station station, Instant since) {}

    @Select("""
            select e.site_id, s.name as site, e.id as endpoint_id, e.name as endpoint, e.station,
            coalesce((select max(c.at) from check_run c where c.endpoint_id = e.id), now()) as since
            from endpoint e join site s on s.id = e.site_id
            where e.status = 'FAILED' and e.retired_at is null and e.station <> 'REGISTER' order by e.site_id, e.name limit 500""")
    List<BrokenRow> broken();
}
