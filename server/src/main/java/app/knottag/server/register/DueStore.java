package app.knottag.server.register;

import java.util.List;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;

/** Sites at which a date of a registration or of an order may have come. */
@Mapper
interface DueStore {

    record DueSite(long id, String name) {}

    @Select("""
            select s.id, s.name from site s where
            exists (select from registration r where r.site_id = s.id and r.ended_at is null
              and (r.ends_at < now() + interval '15 days' or r.entered_at is null
                or r.restarted_at is null and r.entered_at > now() - interval '60 days'))
            or s.visit_on is not null
              and exists (select from prerequisite p where p.site_id = s.id and p.done_at is null)
            or exists (select from endpoint e where e.site_id = s.id and e.retired_at is null and e.status = 'FAILED'
              and e.station = 'REGISTER')
            order by s.id limit 25""")
    List<DueSite> sites();
}
