package app.knottag.server.audit;

import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Options;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.jspecify.annotations.Nullable;

/** Which firmware each unit has, as it was read last, and which faults of firmware are known. */
@Mapper
interface FirmwareStore {

    /** @param version that was read last of this very unit, or null when none was; with its day */
    record UnitRow(
            long id,
            long siteId,
            String site,
            String name,
            String place,
            String kind,
            String model,
            @Nullable String version,
            @Nullable LocalDate readOn) {}

    String UNIT = """
            select e.id, e.site_id, s.name as site, e.name, coalesce(p.name, '') as place, e.kind, e.model, f.version, f.read_on
            from endpoint e join site s on s.id = e.site_id left join place p on p.id = e.place_id
            left join lateral (
              select version, read_on from firmware f where f.endpoint_id = e.id and f.serial = e.serial
              order by read_on desc, id desc limit 1
            ) f on true where e.retired_at is null\s""";

    @Select(UNIT + "and e.site_id = #{siteId} and e.kind = #{kind} order by e.name")
    @Options(flushCache = Options.FlushCachePolicy.TRUE)
    List<UnitRow> ofKind(@Param("siteId") long siteId, @Param("kind") String kind);

    /** All units of the kinds of which a fault is known, at every site. */
    @Select(UNIT + "and e.kind in (select kind from firmware_fault) order by s.name, e.site_id, e.name")
    @Options(flushCache = Options.FlushCachePolicy.TRUE)
    List<UnitRow> concerned();

    record KindRow(String kind, int count) {}

    @Select("""
            select kind, count(*)::int as count from endpoint where site_id = #{siteId} and retired_at is null
            group by kind order by kind""")
    @Options(flushCache = Options.FlushCachePolicy.TRUE)
    List<KindRow> kinds(long siteId);

    @Insert("""
            insert into firmware (endpoint_id, serial, version, read_on, by)
            select id, serial, #{version}, #{readOn}, #{by} from endpoint where id = #{endpointId}""")
    void read(
            @Param("endpointId") long endpointId,
            @Param("version") String version,
            @Param("readOn") LocalDate readOn,
            @Param("by") String by);

    record FaultRow(long id, String kind, String model, String mendedIn, String what, String by, Instant at) {}

    @Select("select id, kind, model, mended_in, what, by, at from firmware_fault order by at desc, id desc")
    @Options(flushCache = Options.FlushCachePolicy.TRUE)
    List<FaultRow> faults();

    @Insert("""
            insert into firmware_fault (kind, model, mended_in, what, by, at)
            values (#{f.kind}, #{f.model}, #{f.mendedIn}, #{f.what}, #{f.by}, #{f.at}) on conflict do nothing""")
    int add(@Param("f") FaultRow fault);

    @Select("delete from firmware_fault where id = #{id} returning id, kind, model, mended_in, what, by, at")
    @Options(flushCache = Options.FlushCachePolicy.TRUE)
    Optional<FaultRow> forget(long id);
}
